import { useEffect, useRef, useState } from 'react';
import { loudness, RATE, wavOf } from './wav.ts';

export type Recorder =
  | { state: 'idle'; problem: string | null; start: () => void }
  | { state: 'asking' }
  | {
      state: 'recording';
      seconds: number;
      loud: number;
      quietFor: number;
      /** It stopped by itself, having recorded the longest there is. */
      full: boolean;
      stop: () => Promise<Blob>;
      drop: () => void;
    };

interface Running {
  stream: MediaStream;
  recorder: MediaRecorder;
  parts: Blob[];
  meter: AudioContext;
  timer: ReturnType<typeof setInterval>;
}

/** Louder than a quiet room. */
const HEARD = 0.2;
const METER_MS = 125;

/** The longest that is recorded in one go, in seconds: below what a file may have, at the rate it is kept at. */
export const MOST_SECONDS = 3_000;

/** The longest that is unpacked, in seconds: unpacking takes some 12 MB of memory a minute. */
const MOST_UNPACKED_SECONDS = 900;

/**
 * Records the microphone. The browser's own recorder takes every sample, however busy the page is; what it packed is
 * unpacked at the end, to samples any transcriber reads, unless it is long: then it is kept as it was packed.
 */
export function useRecorder(): Recorder {
  const running = useRef<Running | null>(null);
  const [state, setState] = useState<'idle' | 'asking' | 'recording'>('idle');
  const [problem, setProblem] = useState<string | null>(null);
  const gone = useRef(false);
  const [heard, setHeard] = useState({ seconds: 0, loud: 0, quietFor: 0, full: false });
  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
      letGo(running.current);
      running.current = null;
    };
  }, []);
  const end = () => {
    const now = running.current;
    running.current = null;
    setState('idle');
    letGo(now);
    return now;
  };
  const start = async () => {
    setProblem(null);
    setState('asking');
    let stream: MediaStream | null = null;
    try {
      stream = await navigator.mediaDevices.getUserMedia({
        audio: { channelCount: 1, echoCancellation: false, noiseSuppression: false, autoGainControl: true },
      });
      // Who left the page while the browser asked is not listened to.
      if (gone.current) return letStreamGo(stream);
      running.current = recording(stream, (next) => setHeard(next));
      setHeard({ seconds: 0, loud: 0, quietFor: 0, full: false });
      setState('recording');
    } catch (error) {
      if (stream) letStreamGo(stream);
      end();
      setProblem(problemOf(error));
    }
  };
  if (state === 'asking') return { state };
  if (state === 'recording')
    return {
      state,
      ...heard,
      stop: async () => {
        const { current } = running;
        if (current) await stopped(current.recorder);
        const now = end();
        const packed = new Blob(now?.parts, { type: now?.recorder.mimeType ?? '' });
        return heard.seconds > MOST_UNPACKED_SECONDS ? packed : unpacked(packed);
      },
      drop: () => void end(),
    };
  return { state, problem, start: () => void start() };
}

/** Begins to record, and tells eight times a second how it goes. */
function recording(
  stream: MediaStream,
  tell: (heard: { seconds: number; loud: number; quietFor: number; full: boolean }) => void,
): Running {
  const recorder = new MediaRecorder(stream, { audioBitsPerSecond: 64_000 });
  const parts: Blob[] = [];
  recorder.ondataavailable = ({ data }) => parts.push(data);
  recorder.start(1_000);
  const began = performance.now();
  const meter = new AudioContext();
  const analyser = new AnalyserNode(meter, { fftSize: 8_192 });
  meter.createMediaStreamSource(stream).connect(analyser);
  const samples = new Float32Array(analyser.fftSize);
  let loudAt = 0;
  const timer = setInterval(() => {
    const seconds = (performance.now() - began) / 1_000;
    analyser.getFloatTimeDomainData(samples);
    const loud = loudness(samples);
    if (loud > HEARD) loudAt = seconds;
    const full = seconds >= MOST_SECONDS;
    if (full && recorder.state !== 'inactive') recorder.stop();
    tell({ seconds: Math.min(seconds, MOST_SECONDS), loud: full ? 0 : loud, quietFor: seconds - loudAt, full });
  }, METER_MS);
  return { stream, recorder, parts, meter, timer };
}

/** Waits until a recorder has handed out the last of what it took. */
function stopped(recorder: MediaRecorder): Promise<void> {
  if (recorder.state === 'inactive') return Promise.resolve();
  return new Promise((resolve) => {
    recorder.onstop = () => resolve();
    recorder.stop();
  });
}

/** What was recorded as WAV; as it was packed where the browser cannot unpack it, so that nothing spoken is lost. */
async function unpacked(packed: Blob): Promise<Blob> {
  if (packed.size === 0) throw new Error('Nothing was recorded. Speak for a second at least, then press Keep it.');
  try {
    const sound = await new OfflineAudioContext(1, 1, RATE).decodeAudioData(await packed.arrayBuffer());
    return wavOf([sound.getChannelData(0)]);
  } catch {
    return packed;
  }
}

/** A recording as a file with a name fit for its form. */
export function soundFile(sound: Blob, name: string): File {
  const form = /^audio\/(wav|webm|ogg|mp4)/.exec(sound.type)?.[1] ?? 'webm';
  return new File([sound], `${name}.${form === 'mp4' ? 'm4a' : form}`, { type: sound.type });
}

/** Lets go of the microphone. */
function letGo(now: Running | null): void {
  if (!now) return;
  clearInterval(now.timer);
  if (now.recorder.state !== 'inactive') now.recorder.stop();
  letStreamGo(now.stream);
  void now.meter.close();
}

function letStreamGo(stream: MediaStream): void {
  for (const track of stream.getTracks()) track.stop();
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
