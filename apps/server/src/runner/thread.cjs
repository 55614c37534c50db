/*
 * What the pool starts in each thread: it imports the program of the threads, and offers what that exports.
 *
 * The pool tries `require` before `import`. A thread that is ended while it requires a module ends the whole application
 * (Node.js 20: a fatal error in Module::IsGraphAsync, about one of 80 such ends); one that imports it does not (none of 360).
 */
const program = import('./worker.js');

// The pool awaits the default export before it gives the thread anything to do.
exports.default = program.then(() => () => undefined);
for (const name of ['ready', 'runStep', 'prepareStep', 'read', 'inspectFile', 'repreview'])
  exports[name] = program.then((exported) => exported[name]);
