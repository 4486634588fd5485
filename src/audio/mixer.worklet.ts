/** The audio thread: a thin shell around the mixer of core. */
import { createMixer, mix, replan, silence, startNote } from '../../core/mix/mixer';
import { CLICKS } from '../../core/mix/click';
import type { FromMixer, MixLevels, ToMixer } from './messages';

declare const sampleRate: number;
declare const currentFrame: number;
declare const registerProcessor: (name: string, processor: unknown) => void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** How many blocks of 128 frames pass between two words to the worker: about 11 ms. */
const CLOCK_EVERY = 4;
/** The meters are told every 85 ms. */
const PEAKS_EVERY = 32;
const MOST_STARTED = 20000;

class MixerProcessor extends AudioWorkletProcessor {
  private mixer = createMixer(sampleRate);
  private worker: MessagePort | null = null;
  private clock = false;
  private blocks = 0;
  private started: number[] = [];

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<{ port: MessagePort }>) => {
      this.worker = data.port;
      this.worker.onmessage = ({ data: message }: MessageEvent<ToMixer>) => this.take(message);
    };
  }

  private say(message: FromMixer) {
    this.worker?.postMessage(message);
  }

  private take(message: ToMixer) {
    switch (message.type) {
      case 'sound':
        this.mixer.sounds[message.index] = message.layers;
        return;
      case 'replan':
        replan(this.mixer, message.from, message.notes);
        return;
      case 'strike':
        for (const note of message.notes) startNote(this.mixer, { ...note, frame: currentFrame });
        return;
      case 'ceiling':
        this.mixer.ceiling = message.level;
        return;
      case 'keep':
        for (const at of Object.keys(this.mixer.sounds).map(Number))
          if (at < CLICKS && !message.sounds.includes(at)) this.mixer.sounds[at] = [];
        return;
      case 'silence':
        silence(this.mixer);
        return;
      case 'clock':
        this.clock = message.on;
        this.say({ type: 'now', frame: currentFrame, at: Date.now() });
        return;
      case 'report': {
        const { count, worst } = this.mixer.late;
        this.say({ type: 'report', report: { late: count, worst, started: this.started } });
      }
    }
  }

  process(_inputs: Float32Array[][], outputs: Float32Array[][]): boolean {
    const [left, right] = outputs[0]!;
    if (!left) return true;
    mix(this.mixer, left, right ?? left, currentFrame, (_, frame) => {
      this.started.push(frame);
      if (this.started.length > MOST_STARTED) this.started.splice(0, MOST_STARTED / 2);
    });
    this.blocks += 1;
    if (this.blocks % PEAKS_EVERY === 0) {
      const levels: MixLevels = { peaks: this.mixer.peaks, left: this.mixer.left };
      this.port.postMessage(levels);
      this.mixer.peaks.fill(0);
      this.mixer.left = 1;
    }
    if (this.clock && this.blocks % CLOCK_EVERY === 0)
      this.say({ type: 'now', frame: currentFrame + 128, at: Date.now() });
    return true;
  }
}

registerProcessor('ruddik-mixer', MixerProcessor);
