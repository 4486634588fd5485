import type { Ref } from 'react';
import './pictures.css';

interface PaperProps {
  label: string;
  onElement: Ref<HTMLDivElement>;
}

/** What a part of notation is drawn on, by a program that wants an element of the page. */
export const Paper = ({ label, onElement }: PaperProps) => (
  <div ref={onElement} className="paper" role="img" aria-label={label} />
);
