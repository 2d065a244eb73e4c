import { describe, expect, it } from 'vitest';
import { calledByAddress, calledByFile, calledByItself } from './called.ts';

describe('a document is called', () => {
  it.each([
    ['beeswax_candles-2.pdf', 'beeswax candles 2'],
    ['Handbuch.docx', 'Handbuch'],
    ['.pdf', 'A document'],
    ['--.md', 'A document'],
  ])('by its file %s', (file, name) => {
    expect(calledByFile(file)).toBe(name);
  });

  it.each([
    ['https://guild.example/notes/how-to-dip-candles.html', 'How to dip candles'],
    ['https://guild.example/wachs%20ziehen', 'Wachs ziehen'],
    ['https://guild.example/%E0%A4%A', '%E0%A4%A'],
    ['https://guild.example/', 'guild.example'],
  ])('by its address %s', (address, name) => {
    expect(calledByAddress(address)).toBe(name);
  });

  it.each([
    ['Dipping candles\n from  beeswax', 'Dipping candles from beeswax'],
    ['Kerzen ziehen', 'Kerzen ziehen'],
    ['味噌の仕込み方', '味噌の仕込み方'],
    ['序章', null],
    ['Introduction', null],
    ['3 1', null],
    ['', null],
    ['Microsoft Word - notes of May', null],
    ['Notes of May.indd', null],
    ['Untitled document', null],
    [`${'long '.repeat(60)}`, null],
  ])('by itself, where %o says something', (title, name) => {
    expect(calledByItself(title)).toBe(name);
  });
});
