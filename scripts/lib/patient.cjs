jest.setTimeout(90_000);
// Every transaction of the suites must say what it changes.
process.env.CHECK_TELLING = '1';
