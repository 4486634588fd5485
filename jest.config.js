/** Core needs no browser and no React; the rest runs as it does on the web. */
const babel = {
  presets: ['babel-preset-expo'],
  // Jest's own modules know nothing of imports that are made later.
  plugins: ['@babel/plugin-transform-dynamic-import'],
};
const swc = { jsc: { parser: { syntax: 'typescript', tsx: true }, target: 'es2022' }, sourceMaps: 'inline' };
const transform = { '^.+\\.tsx?$': ['@swc/jest', swc] };
const web = { ...require('jest-expo/web/jest-preset') };
const [name, options] = web.transform['\\.[jt]sx?$'];
web.transform = { ...web.transform, '\\.[jt]sx?$': [name, { ...options, plugins: babel.plugins }] };
// Only for watching, and not understood within a project.
delete web.watchPlugins;

module.exports = {
  // A machine may be slow and busy; what hangs is still ended.
  testTimeout: 60000,
  projects: [
    {
      displayName: 'core',
      testEnvironment: 'node',
      setupFiles: ['<rootDir>/jest.property.js'],
      testMatch: ['<rootDir>/{core,cli,server,scripts,faults,golden}/**/*.test.ts'],
      // What reads audio files comes as modules only.
      transform: { ...transform, '/node_modules/@audio/.+\\.js$': transform['^.+\\.tsx?$'] },
      transformIgnorePatterns: ['/node_modules/(?!@audio/)'],
    },
    {
      ...web,
      displayName: 'src',
      setupFiles: [...web.setupFiles, '<rootDir>/jest.dom.js', '<rootDir>/jest.property.js'],
      rootDir: __dirname,
      moduleNameMapper: {
        ...web.moduleNameMapper,
        '\\.css$': '<rootDir>/jest.css.js',
        // Its other form forgets to say what it is.
        '^lucide-react-native/icons/(.*)$':
          '<rootDir>/node_modules/lucide-react-native/dist/esm/icons/$1.mjs',
      },
      // The icons come as .mjs.
      transform: { ...web.transform, '\\.mjs$': web.transform['\\.[jt]sx?$'] },
      moduleFileExtensions: [...web.moduleFileExtensions, 'mjs'],
      testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}'],
      transformIgnorePatterns: [
        '/node_modules/(?!(.pnpm|react-native|@react-native|@react-native-community|expo|@expo|react-navigation|@react-navigation|native-base|@rneui|lucide-react-native|@audio|gifted-charts-core|nanoid|@react-native-async-storage))',
      ],
    },
  ],
};
