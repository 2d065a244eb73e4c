import { describe, expect, it } from 'vitest';
import { readCaptions } from './parse.ts';

const said = (text: string) => {
  const read = readCaptions(text);
  return read.ok ? read.cues.map(({ start, end, lines }) => [start, end, lines.join(' ')]) : read.problem;
};

describe('captions', () => {
  it('of WebVTT, its head, notes and styles left out, its first line known even after a mark of the encoding', () => {
    const text =
      '\ufeffWEBVTT Kept\nKind: captions\n\nNOTE not said\n\nSTYLE\n::cue {}\n\n00:01.000 --> 00:02.500\nSalt';
    expect(said(text)).toEqual([[1, 2.5, 'Salt']]);
  });

  it('of SRT, whatever their numbers say', () => {
    const text = '7\n00:00:01,000 --> 00:00:02,000\nSalt\n\n7\r\n01:00:00,250 --> 01:00:01,000\r\nand brine';
    expect(said(text)).toEqual([
      [1, 2, 'Salt'],
      [3_600.25, 3_601, 'and brine'],
    ]);
  });

  it('the first cue may stand at the very beginning', () => {
    expect(said('00:00:00.000 --> 00:00:01.000\nAt once')).toEqual([[0, 1, 'At once']]);
  });

  it('without any times are no captions', () => {
    expect(said('Salt and brine\n')).toBe('it holds no times as 00:01:02.000 --> 00:01:04.000');
    expect(said('')).toBe('it holds no times as 00:01:02.000 --> 00:01:04.000');
  });

  it('a cue that ends before it begins is named with its line, and the others are read', () => {
    const read = readCaptions('WEBVTT\n\n00:05.000 --> 00:04.000\nback\n\n00:06.000 --> 00:07.000\non');
    expect(read.ok && read.cues.flatMap(({ lines }) => lines)).toEqual(['on']);
    expect(read.ok && read.faults.map(({ line }) => line)).toEqual([3]);
  });
});
