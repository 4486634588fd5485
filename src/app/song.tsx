import { lazy, Suspense } from 'react';

const SongScreen = lazy(async () => ({ default: (await import('../screens/later')).SongScreen }));

export default function Song() {
  return (
    <Suspense fallback={null}>
      <SongScreen />
    </Suspense>
  );
}
