// A machine that is shared may stand still for a while: waiting longer costs nothing where it does not.
jest.setTimeout(300_000);
// Every transaction of the suites must say what it changes.
process.env.CHECK_TELLING = '1';
