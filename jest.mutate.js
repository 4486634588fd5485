/** What mutants are tried by: the tests of one room, quickly, each property with few examples. */
const { readFileSync } = require('fs');
const { projects } = require('./jest.config');

const room = process.env.ROOM ?? 'core/play';
const { tests } = JSON.parse(readFileSync(`${__dirname}/mutation/rooms.json`, 'utf8'))[room];
const [core, src] = projects;

module.exports = {
  ...(room.startsWith('src') ? src : core),
  displayName: undefined,
  rootDir: __dirname,
  testMatch: tests.map((pattern) => `<rootDir>/${pattern}`),
  testTimeout: 60000,
};
