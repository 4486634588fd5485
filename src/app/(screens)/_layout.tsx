import { Frame } from '../../screens/frame/Frame';
import { Screens } from '../../screens/Screens';

export default function Layout() {
  return (
    <Frame>
      <Screens />
    </Frame>
  );
}
