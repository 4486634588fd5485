/** Style sheets say nothing to a unit test. */
module.exports = {};
