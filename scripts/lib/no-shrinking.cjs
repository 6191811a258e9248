// A change that a property notices is noticed: the smallest example of it is not looked for, which takes many
// times as long.
require('fast-check').configureGlobal({ endOnFailure: true });
