import { lazy, Suspense } from 'react';

const FeelScreen = lazy(async () => ({ default: (await import('../screens/later')).FeelScreen }));

export default function Feel() {
  return (
    <Suspense fallback={null}>
      <FeelScreen />
    </Suspense>
  );
}
