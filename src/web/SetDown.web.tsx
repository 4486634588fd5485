/** What is dragged within the page is set down: React Native has no counterpart for it. */
import { useState, type ReactNode } from 'react';
import { isDragged, letGo } from '../ui/dragged';

interface SetDownProps {
  /** Given whether something is held over it. */
  children: (over: boolean) => ReactNode;
}

/** Takes what is dragged within the page, and nothing else. */
export const SetDown = ({ children }: SetDownProps) => {
  const [over, setOver] = useState(false);
  return (
    <div
      style={{ display: 'contents' }}
      onDragOver={(event) => {
        if (!isDragged()) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        setOver(false);
        if (!isDragged()) return;
        event.preventDefault();
        letGo();
      }}
    >
      {children(over)}
    </div>
  );
};
