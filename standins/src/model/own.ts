/** What the model says of any material, by language: its frames, which hold nothing but what it is given. */
export interface OwnWords {
  noMore: string;
  /** Ends a sentence. */
  stop?: string;
  and: string;
  matters: (subject: string) => string;
  /** Titles for any subject, where nothing is known to name. */
  titles: (subject: string) => string[];
  /** How descriptions begin. */
  begins: (subject: string) => string[];
  /** A description where nothing is known to name. */
  nothing: (subject: string) => string;
  /** A question after something. */
  asks: (about: string) => string;
  table: [string, string];
  figures: (subject: string) => string;
  /** What may be asked of any subject, where there is nothing to plan from. */
  plan: (subject: string) => string[];
  /** What can be said of anything, where nothing is known of it. */
  general: (subject: string) => string[];
}

export const OWN: Readonly<Record<string, OwnWords>> = {
  en: {
    noMore: 'The sources say no more about this.',
    and: 'and',
    matters: (subject) => `What matters in ${subject}?`,
    titles: (subject) => [`${subject}: what to know`, `${subject}, looked at closely`, `The facts on ${subject}`],
    begins: (subject) => [`${subject}: `, `${subject}, from the start: `],
    nothing: (subject) => `${subject}: what the sources say about it.`,
    asks: (about) => `What about “${about.charAt(0).toLowerCase()}${about.slice(1)}”?`,
    table: ['What it is of', 'The figure'],
    figures: (subject) => `Figures on ${subject}`,
    plan: (subject) => [
      `What ${subject} is about`,
      'How to begin',
      'What most people get wrong',
      'How to tell that it worked',
      'When to ask somebody who knows',
    ],
    general: (subject) => [
      `There is more than one way to go about ${subject}, and what suits one reader does not suit the next.`,
      'Begin with little, look at what comes of it, and change one thing at a time.',
      'Write down what you did, so that you can do it again or leave it the next time.',
      'Take more time than you think you need, and have at hand what you will want before you begin.',
      'Where something can go badly wrong, ask somebody who has done it before.',
    ],
  },
  de: {
    noMore: 'Dazu sagen die Quellen nichts weiter.',
    and: 'und',
    matters: (subject) => `Worauf kommt es an: ${subject}?`,
    titles: (subject) => [
      `${subject}: was man wissen sollte`,
      `${subject}, genau betrachtet`,
      `Das Wichtigste zu ${subject}`,
    ],
    begins: (subject) => [`${subject}, kurz erklärt: `, `${subject}: `],
    nothing: (subject) => `${subject}: was die Quellen dazu sagen.`,
    asks: (about) => `Was ist mit „${about}“?`,
    table: ['Wovon', 'Wie viel'],
    figures: (subject) => `Zahlen zu ${subject}`,
    plan: (subject) => [
      `Worum es bei ${subject} geht`,
      'Wie man anfängt',
      'Was die meisten falsch machen',
      'Woran man merkt, dass es gelingt',
      'Wann man jemanden fragt, der es kann',
    ],
    general: (subject) => [
      `Bei ${subject} führt mehr als ein Weg zum Ziel, und was dem einen passt, passt dem anderen nicht.`,
      'Fang klein an, sieh dir an, was daraus wird, und ändere immer nur eines.',
      'Schreib auf, was du getan hast, damit du es wiederholen oder lassen kannst.',
      'Nimm dir mehr Zeit, als du zu brauchen meinst, und leg vorher bereit, was du brauchst.',
      'Wo etwas gründlich schiefgehen kann, frag jemanden, der es schon getan hat.',
    ],
  },
  sv: {
    noMore: 'Mer än så säger källorna inte om detta.',
    and: 'och',
    matters: (subject) => `Vad är viktigt: ${subject}?`,
    titles: (subject) => [`${subject}: det här bör du veta`, `${subject}, sett på nära håll`],
    begins: (subject) => [`${subject}: `, `${subject}, från början: `],
    nothing: (subject) => `${subject}: vad källorna säger om det.`,
    asks: (about) => `Hur är det med ”${about}”?`,
    table: ['Vad det gäller', 'Hur mycket'],
    figures: () => 'Siffrorna samlade',
    plan: () => ['Vad det handlar om', 'Hur man börjar', 'Vad de flesta gör fel', 'Hur man ser att det har lyckats'],
    general: () => [
      'Det finns mer än ett sätt att göra det här, och det som passar den ena passar inte den andra.',
      'Börja i det lilla, se vad det blir av det och ändra en sak i taget.',
      'Skriv ner vad du gjorde, så att du kan göra om det eller låta bli nästa gång.',
    ],
  },
  pl: {
    noMore: 'Źródła nie mówią o tym nic więcej.',
    and: 'i',
    matters: (subject) => `Co jest ważne: ${subject}?`,
    titles: (subject) => [`${subject}: co warto wiedzieć`, `${subject}, z bliska`],
    begins: (subject) => [`${subject}: `, `${subject}, od początku: `],
    nothing: (subject) => `${subject}: co mówią o tym źródła.`,
    asks: (about) => `A co z tym: „${about}”?`,
    table: ['Czego dotyczy', 'Ile'],
    figures: () => 'Liczby w jednym miejscu',
    plan: () => ['O co chodzi', 'Jak zacząć', 'Co większość robi źle', 'Po czym poznać, że się udało'],
    general: () => [
      'Można to zrobić na więcej niż jeden sposób, a co pasuje jednemu, nie pasuje drugiemu.',
      'Zacznij od małego, zobacz, co z tego wyjdzie, i zmieniaj tylko jedną rzecz naraz.',
      'Zapisz, co zrobiłeś, żeby móc to powtórzyć albo następnym razem pominąć.',
    ],
  },
  ja: {
    noMore: 'これについて出典はこれ以上述べていません。',
    stop: '。',
    and: 'と',
    matters: (subject) => `何が大切なのか：${subject}`,
    titles: (subject) => [`${subject}：知っておきたいこと`, `${subject}を詳しく見る`],
    begins: (subject) => [`${subject}。`, `${subject}、はじめから。`],
    nothing: (subject) => `${subject}。出典が述べていること。`,
    asks: (about) => `「${about}」についてはどうですか。`,
    table: ['何の量か', '数値'],
    figures: () => '数値のまとめ',
    plan: () => ['何の話なのか', 'どう始めるか', '多くの人が間違えること', 'うまくいったと分かるとき'],
    general: () => [
      'やり方は一つではなく、ある人に合うことが別の人にも合うとは限りません。',
      '小さく始めて、どうなるかを見てから、一度に一つだけ変えましょう。',
      '何をしたかを書き留めておけば、次に繰り返すことも、やめることもできます。',
    ],
  },
  ar: {
    noMore: 'لا تقول المصادر أكثر من ذلك عن هذا الموضوع.',
    and: 'و',
    matters: (subject) => `ما المهم هنا: ${subject}؟`,
    titles: (subject) => [`${subject}: ما ينبغي معرفته`, `${subject}، عن قرب`],
    begins: (subject) => [`${subject}: `, `${subject}، من البداية: `],
    nothing: (subject) => `${subject}: ما تقوله المصادر عنه.`,
    asks: (about) => `وماذا عن «${about}»؟`,
    table: ['ما هو', 'المقدار'],
    figures: () => 'الأرقام في مكان واحد',
    plan: () => ['عن ماذا نتحدث', 'كيف نبدأ', 'ما الذي يخطئ فيه معظم الناس', 'كيف تعرف أنه نجح'],
    general: () => [
      'هناك أكثر من طريقة لفعل ذلك، وما يناسب قارئا لا يناسب غيره.',
      'ابدأ بالقليل، وانظر ما ينتج عنه، وغير شيئا واحدا في كل مرة.',
      'اكتب ما فعلته حتى تستطيع تكراره أو تركه في المرة القادمة.',
    ],
  },
};

/** In a language, or in English. */
export const ownWords = (language: string): OwnWords => OWN[language] ?? OWN['en']!;
