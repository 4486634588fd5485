import { lazy, Suspense } from 'react';

const GroovesScreen = lazy(async () => ({
  default: (await import('../screens/grooves/GroovesScreen')).GroovesScreen,
}));

export default function Grooves() {
  return (
    <Suspense fallback={null}>
      <GroovesScreen />
    </Suspense>
  );
}
