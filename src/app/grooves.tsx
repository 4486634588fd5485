import { lazy, Suspense } from 'react';

const GroovesScreen = lazy(async () => ({
  default: (await import('../screens/later')).GroovesScreen,
}));

export default function Grooves() {
  return (
    <Suspense fallback={null}>
      <GroovesScreen />
    </Suspense>
  );
}
