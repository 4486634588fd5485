import { useEffect, useState } from 'react';
import type { Beat } from '../../../core/document/schema';
import type { ExportHow } from '../../../core/export/choice';
import type { Leads } from '../../../core/mix/leads';
import { ownOf } from '../../../core/samples/own';
import { askDesk } from '../../workers/askOwn';

/** Whether a lane of a beat plays a sound of one's own. */
export const hasOwnSounds = (beat: Beat): boolean => beat.lanes.some((lane) => ownOf(beat, lane));

/** How much earlier the notes of a beat come; null where they are not to, or their sounds cannot be had. */
export const useLeads = (beat: Beat, { kind, lead }: ExportHow): Leads | null | 'coming' => {
  const wanted = kind === 'midi' && lead && hasOwnSounds(beat);
  const [found, setFound] = useState<{ beat: Beat; leads: Leads | null } | null>(null);
  useEffect(() => {
    if (!wanted) return;
    let current = true;
    const { kit, own, lanes } = beat;
    void askDesk<Leads>((far) => far.leads({ kit, lanes, ...(own && { own }) }) as Promise<Leads>).then(
      (leads) => current && setFound({ beat, leads }),
    );
    return () => {
      current = false;
    };
  }, [beat, wanted]);
  if (!wanted) return null;
  return found?.beat === beat ? found.leads : 'coming';
};
