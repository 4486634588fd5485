import { nanoid } from '@reduxjs/toolkit';
import { use, useState, type DragEvent } from 'react';
import { meterText } from '../../../core/beat/meter';
import type { Beat, Pattern } from '../../../core/beat/schema';
import { count } from '../../../core/beat/text';
import { colourOf, freeSectionName, newEntry } from '../../../core/song/edits';
import { store } from '../../state/session';
import { songViewed } from '../../state/slices';
import { useApp, useDo } from '../../state/store';
import { Chip } from '../../ui/Chip';
import { IconButton } from '../../ui/IconButton';
import { NameInput } from '../../ui/NameInput';
import { PlayContext } from '../../ui/playing';
import { SortableLater } from '../../ui/SortableLater';
import { BeadPicture } from '../../strings/BeadPicture';
import { edit } from './edit';

const DRAGGED = 'text/x-ruddik-pattern';

/** The tray as a song of its own: each once, in order. */
const trayBeat = (beat: Beat, from: number): Beat => {
  const items = beat.tray.slice(from);
  return {
    ...beat,
    song: {
      sections: items.map(({ id, name, patternId }) => ({
        id,
        name,
        pigment: 'walnut',
        entries: [newEntry(id, patternId)],
        silent: [],
      })),
      order: items.map(({ id }) => ({ id, sectionId: id, times: 1 })),
    },
  };
};

const Picture = ({ beat, pattern }: { beat: Beat; pattern: Pattern | undefined }) =>
  pattern ? (
    <BeadPicture pattern={pattern} lanes={beat.lanes} width={80} height={40} />
  ) : (
    <span className="gone" aria-hidden />
  );

const rename = (id: string, now: string, name: string) => {
  if (name.trim() && name.trim() !== now) edit({ edit: 'renameInTray', args: { id, name } });
};

const asSection = (beat: Beat, name: string, patternId: string) => {
  const free = freeSectionName(beat.song, name);
  edit({
    edit: 'addSection',
    args: {
      section: {
        id: nanoid(),
        name: free,
        pigment: colourOf(name),
        entries: [newEntry(nanoid(), patternId)],
        silent: [],
      },
      placeId: nanoid(),
      at: null,
    },
  });
};

const setAside = (beat: Beat, patternId: string) => {
  const pattern = beat.patterns.find(({ id }) => id === patternId);
  if (pattern) edit({ edit: 'toTray', args: { id: nanoid(), name: pattern.name, patternId } });
};

/** What was set aside for the song, and the patterns that can be. */
export const TrayPage = ({ beat, wide }: { beat: Beat; wide: boolean }) => {
  const toggle = use(PlayContext);
  const act = useDo();
  const playing = useApp(({ view }) => view.playing && view.song.tried !== null);
  const [over, setOver] = useState(false);
  const play = (from: number) => {
    if (store.getState().view.playing) toggle();
    act(songViewed({ tried: trayBeat(beat, from), from: 0, loop: null }));
    toggle();
  };
  const patternOf = (id: string) => beat.patterns.find((pattern) => pattern.id === id);
  const drop = (event: DragEvent) => {
    setOver(false);
    const id = event.dataTransfer.getData(DRAGGED);
    if (!id) return;
    event.preventDefault();
    setAside(beat, id);
  };
  return (
    <div className="song-tray">
      <section
        aria-label="Tray"
        className={over ? 'song-drop over' : 'song-drop'}
        onDragOver={(event) => {
          if (!event.dataTransfer.types.includes(DRAGGED)) return;
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
      >
        <div className="chips">
          <Chip disabled={!beat.tray.length} pressed={playing} onPress={() => (playing ? toggle() : play(0))}>
            {playing ? 'Stop' : 'Play one after the other'}
          </Chip>
        </div>
        {beat.tray.length ? (
          <SortableLater
            label="Tray in its order"
            items={beat.tray.map(({ id, name, patternId }, at) => {
              const pattern = patternOf(patternId);
              return {
                id,
                name,
                row: (
                  <div className="tray-row">
                    <button
                      type="button"
                      className="tray-play"
                      aria-label={`Play the tray from ${name}`}
                      disabled={!pattern}
                      onClick={() => play(at)}
                    >
                      <Picture beat={beat} pattern={pattern} />
                    </button>
                    <span className="tray-words">
                      <NameInput
                        label={`Name of ${name} in the tray`}
                        value={name}
                        onName={(to) => rename(id, name, to)}
                      />
                      <small>
                        {pattern
                          ? `${meterText(pattern.meter)}, ${count(pattern.bars, 'bar')}`
                          : 'Its pattern was deleted'}
                      </small>
                    </span>
                    <IconButton
                      label={`Add ${name} to the song`}
                      icon="new"
                      disabled={!pattern}
                      onPress={() => asSection(beat, name, patternId)}
                    />
                    <IconButton
                      label={`Take ${name} off the tray`}
                      icon="close"
                      onPress={() => edit({ edit: 'fromTray', args: { id } })}
                    />
                  </div>
                ),
              };
            })}
            onMove={(id, to) => edit({ edit: 'moveInTray', args: { id, to } })}
          />
        ) : (
          <p className="quiet">
            Set patterns and grooves aside here for the song: with “Into the tray” on the Grooves and Pattern
            screens, or from the patterns below.
          </p>
        )}
      </section>
      <section aria-label="Patterns of the beat">
        <h2>Patterns of the beat</h2>
        {wide ? <p className="quiet">Drag one up into the tray, or use its button.</p> : null}
        <ul className="song-patterns">
          {beat.patterns.map((pattern) => (
            <li
              key={pattern.id}
              draggable={wide}
              onDragStart={(event) => {
                event.dataTransfer.setData(DRAGGED, pattern.id);
                event.dataTransfer.effectAllowed = 'copy';
              }}
            >
              <Picture beat={beat} pattern={pattern} />
              <span className="tray-words">
                <b>{pattern.name}</b>
                <small>{`${meterText(pattern.meter)}, ${count(pattern.bars, 'bar')}`}</small>
              </span>
              <Chip label={`Into the tray: ${pattern.name}`} onPress={() => setAside(beat, pattern.id)}>
                Into the tray
              </Chip>
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
};
