/**
 * Makes a file that only passes on what others export hand each of them out when it is asked for. React Native for web
 * would otherwise run all its lists, animations and touchables before the first screen is there.
 */
const handOutLate = ({ types: t, template }) => {
  const handOut = template.statement(
    `Object.defineProperty(exports, NAME, { enumerable: true, get: () => require(FROM)[WHAT] })`,
  );
  return {
    visitor: {
      Program(program, { filename }) {
        if (!/react-native-web[\\/]dist[\\/]index\.js$/.test(filename ?? '')) return;
        const late = [];
        for (const { node } of program.get('body')) {
          if (!t.isExportNamedDeclaration(node) || !node.source) return;
          for (const { local, exported } of node.specifiers)
            late.push(
              handOut({
                NAME: t.stringLiteral(exported.name),
                FROM: t.stringLiteral(node.source.value),
                WHAT: t.stringLiteral(local.name),
              }),
            );
        }
        const marked = template.statement(`Object.defineProperty(exports, '__esModule', { value: true })`)();
        program.node.body = [marked, ...late];
      },
    },
  };
};

module.exports = (api) => {
  api.cache(true);
  return { presets: ['babel-preset-expo'], plugins: [handOutLate] };
};
