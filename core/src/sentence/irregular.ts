/** Forms of English verbs that no ending tells, each verb before its forms. */
const FORMS =
  'be was were been,bear bore borne,beat beaten,become became,begin began begun,bend bent,bind bound,bite bit bitten,blow blew blown,break broke broken,breed bred,bring brought,build built,burn burnt,buy bought,catch caught,choose chose chosen,come came,cost costs,deal dealt,dig dug,do did done,draw drew drawn,drink drank drunk,drive drove driven,eat ate eaten,fall fell fallen,feed fed,feel felt,fight fought,find found,flee fled,fly flew flown,forbid forbade forbidden,forget forgot forgotten,freeze froze frozen,get got gotten,give gave given,go went gone,grind ground,grow grew grown,hang hung,hear heard,hide hid hidden,hold held,keep kept,kneel knelt,know knew known,lay laid,lead led,leap leapt,learn learnt,leave left,lend lent,lie lay lain,light lit,lose lost,make made,mean meant,meet met,pay paid,ride rode ridden,ring rang rung,rise rose risen,run ran,say said,see saw seen,seek sought,sell sold,send sent,sew sewn,shake shook shaken,shine shone,shoot shot,show shown,shrink shrank shrunk,sing sang sung,sink sank sunk,sit sat,sleep slept,slide slid,sow sown,speak spoke spoken,spend spent,spin spun,spread spreads,stand stood,steal stole stolen,stick stuck,strike struck,swear swore sworn,sweep swept,swell swollen,swim swam swum,swing swung,take took taken,teach taught,tear tore torn,tell told,think thought,throw threw thrown,understand understood,wake woke woken,wear wore worn,weave wove woven,weep wept,win won,wind wound,write wrote written';

const VERB_OF = new Map(
  FORMS.split(',').flatMap((line) => {
    const [verb = '', ...forms] = line.split(' ');
    return forms.map((form): [string, string] => [form, verb]);
  }),
);

/** The verb a form belongs to; the word itself where it is no such form. */
export const verbOf = (word: string): string => VERB_OF.get(word) ?? word;
