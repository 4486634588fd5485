'use strict';
// A thread does not inherit what reads TypeScript.
require('tsx/cjs/api').require('./grooveWorker.ts', __filename);
