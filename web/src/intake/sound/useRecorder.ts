import { useEffect, useRef, useState } from 'react';
import capture from './capture.worklet.ts?worker&url';
import { loudness, RATE, wavOf } from './wav.ts';

export type Recorder =
  | { state: 'idle'; problem: string | null; start: () => void }
  | { state: 'asking' }
  | { state: 'recording'; seconds: number; loud: number; quietFor: number; stop: () => Blob; drop: () => void };

interface Running {
  context: AudioContext;
  stream: MediaStream;
  parts: Float32Array[];
}

/** Louder than a quiet room. */
const HEARD = 0.2;

/** The longest that is recorded in one go. */
const MOST_SECONDS = 3_600;

/** Records the microphone as samples at 16,000 a second. */
export function useRecorder(): Recorder {
  const running = useRef<Running | null>(null);
  const [state, setState] = useState<'idle' | 'asking' | 'recording'>('idle');
  const [problem, setProblem] = useState<string | null>(null);
  const [heard, setHeard] = useState({ seconds: 0, loud: 0, quietFor: 0 });
  useEffect(() => () => void ended(running), []);
  const end = () => ended(running);
  const start = async () => {
    setProblem(null);
    setState('asking');
    try {
      const stream = await navigator.mediaDevices.getUserMedia({
        audio: { channelCount: 1, echoCancellation: false, noiseSuppression: false, autoGainControl: true },
      });
      const context = new AudioContext({ sampleRate: RATE });
      await context.audioWorklet.addModule(capture);
      const node = new AudioWorkletNode(context, 'capture', { numberOfOutputs: 0 });
      const parts: Float32Array[] = [];
      let count = 0;
      let told = 0;
      let loudAt = 0;
      let loudest = 0;
      node.port.onmessage = ({ data }: MessageEvent<Float32Array>) => {
        if (count > MOST_SECONDS * RATE) return;
        parts.push(data);
        count += data.length;
        loudest = Math.max(loudest, loudness(data));
        if (loudest > HEARD) loudAt = count;
        if (count - told < RATE / 8) return;
        told = count;
        setHeard({ seconds: count / RATE, loud: loudest, quietFor: (count - loudAt) / RATE });
        loudest = 0;
      };
      context.createMediaStreamSource(stream).connect(node);
      running.current = { context, stream, parts };
      setHeard({ seconds: 0, loud: 0, quietFor: 0 });
      setState('recording');
    } catch (error) {
      end();
      setState('idle');
      setProblem(problemOf(error));
    }
  };
  if (state === 'asking') return { state };
  if (state === 'recording')
    return {
      state,
      ...heard,
      stop: () => {
        setState('idle');
        return wavOf(end());
      },
      drop: () => {
        setState('idle');
        end();
      },
    };
  return { state, problem, start: () => void start() };
}

/** Lets go of the microphone; what was recorded so far. */
function ended(running: { current: Running | null }): Float32Array[] {
  const now = running.current;
  running.current = null;
  if (!now) return [];
  for (const track of now.stream.getTracks()) track.stop();
  void now.context.close();
  return now.parts;
}

function problemOf(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError')
    return 'The browser does not let Grivo hear the microphone. Allow it beside the address, then press again.';
  if (name === 'NotFoundError') return 'There is no microphone. Connect one, or upload a recording.';
  if (navigator.mediaDevices === undefined)
    return 'The microphone can only be heard over https, or on this machine itself. Upload a recording instead.';
  return 'The microphone could not be opened. Close what else uses it, then press again.';
}
