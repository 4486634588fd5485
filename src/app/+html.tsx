import type { ReactNode } from 'react';

/** The theme chosen before, put on before anything is painted. */
const THEME = `try{var t=localStorage.getItem('ruddik-theme');if(t)document.documentElement.setAttribute('data-theme',t)}catch(e){}`;

export default function Html({ children }: { children: ReactNode }) {
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1, viewport-fit=cover" />
        <meta name="description" content="Drum patterns that groove: see every hit where it sounds." />
        <meta name="theme-color" content="#17211F" media="(prefers-color-scheme: dark)" />
        <meta name="theme-color" content="#F3EFE6" media="(prefers-color-scheme: light)" />
        <script dangerouslySetInnerHTML={{ __html: THEME }} />
      </head>
      <body>{children}</body>
    </html>
  );
}
