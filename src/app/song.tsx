import { Later } from '../ui/Later';

const screen = async () => (await import('../screens/later')).SongScreen;

export default function Song() {
  return <Later of={screen} />;
}
