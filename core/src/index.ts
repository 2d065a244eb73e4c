export { alignBlocks } from './article/align.ts';
export { alternativeApart, alternativeFor, alternativeFrom, LONGEST_ALTERNATIVE } from './article/alternative.ts';
export * from './article/block.ts';
export { EACH as ONE_OF_EACH_BLOCK } from './article/blocks/each.ts';
export type { FlowPart } from './article/blocks/kind.ts';
export { asTheBlogHas, bestCategory } from './article/category.ts';
export { type ChangedArticle, changedFrom, withChanges } from './article/changed.ts';
export {
  type BlockCompared,
  type Comparison,
  compareArticles,
  compareWords,
  type WordsCompared,
} from './article/compare.ts';
export { articleDoubts, type BlockDoubt, doubtReader, doubtWords, isOfSentence, isSure } from './article/doubts.ts';
export { editableText, type ReadBody, readEditable, type TextProblem } from './article/editable.ts';
export { BLOCK_NAMED, editableHtml } from './article/editableHtml.ts';
export { articleFlow } from './article/flow.ts';
export { articleHtml, articleNodes, articlePage, BELOW as BELOW_TEXT, blocksHtml } from './article/html.ts';
export { type HygieneNote, tidy, withoutBlanks } from './article/hygiene.ts';
export {
  type FlowSpan,
  inlineText,
  linkAddress,
  type PictureCopy,
  plainInline,
  type Resolve,
  sliceInline,
  trimInline,
} from './article/inline.ts';
export {
  addressAlone,
  creditIn,
  type LaidOut,
  type LaidOutPart,
  laidOutMarkdown,
  laidOutPlain,
  linked,
  type PictureAsked,
  type VideoAsked,
} from './article/laidOut.ts';
export { leadingTo, linkedArticles } from './article/linked.ts';
export { articleFile, articleMarkdown, blocksMarkdown } from './article/markdown.ts';
export { type ArticleMeasure, type MeasuredBeside, type MeasuredSource, NOTHING_BESIDE } from './article/measure.ts';
export { measuresOf } from './article/measures.ts';
export { type Clash, type Merged, mergeArticles, rejoined as rejoinedInline } from './article/merge.ts';
export { tooNested } from './article/nested.ts';
export { LISTED_MEASURES, type ListedMeasure, measureBits, type OutOfRange, outOfRange } from './article/outOfRange.ts';
export {
  type OurPart,
  type OutsideChoice,
  type OutsidePlace,
  outsidePlaces,
  type ShownPart,
  settledBody,
} from './article/outside.ts';
export { ownWordsOf } from './article/ownWords.ts';
export { emphasised, quotedFrom, restingOn, withFold, withoutEmoji, withRelated } from './article/parts.ts';
export { type PicturePlace, placesAtHeadings, placesWhereTheyFit, withPictures } from './article/picturePlaces.ts';
export { alikeBlocks, type Putting, putProblem, puttingOf } from './article/putting.ts';
export { type OwnSayings, SAYING_NAMES, type SayingName, type Sayings, sayingsIn, saysIn } from './article/sayings.ts';
export { makeAnchors, slugOf } from './article/slug.ts';
export { structuredData } from './article/structured.ts';
export { tagsOf } from './article/tags.ts';
export {
  articlePlain,
  articleText,
  articleWords,
  blockText,
  inlinesOf,
  isStatement,
  linksOf,
  withTexts,
} from './article/text.ts';
export { type Unit, unitProblem, unitsOf } from './article/translate.ts';
export { upgradedArticle } from './article/upgrade.ts';
export { dryFrom, type ForecastSlot, forecast } from './cadence/forecast.ts';
export { shortfall, shortfallWords } from './cadence/kept.ts';
export { nextFreeSlot, type Placement, placementFaults, reflow } from './cadence/placement.ts';
export { CadenceRule, cadenceSentence } from './cadence/rule.ts';
export { type Moment, slotsBetween, slotsFrom } from './cadence/slots.ts';
export { type CaptionFault, type Chapter, type Cue, clockOf, type ReadCaptions, secondsOf } from './captions/cue.ts';
export { readCaptions } from './captions/parse.ts';
export { type SpokenChapter, type SpokenPassages, spokenCarries, spokenPassages } from './captions/passages.ts';
export { type Cleaned, type Spoken, spokenOf } from './captions/spoken.ts';
export {
  CARD_FACES,
  CARD_FIELDS,
  CARD_SIDES,
  CardBox,
  CardDocument,
  type CardFace,
  type CardPicture,
  type CardText,
  cardCalled,
  MOST_CARDS,
  newCard,
  resized as resizedCard,
} from './card/document.ts';
export { type CardNeeds, type CardProblem, type Drawn as DrawnCard, drawCard } from './card/draw.ts';
export { type Chance, chanceFrom, textDigest } from './chance/chance.ts';
export { type Compared, comparedSeries, comparedTable, PRODUCT_COLUMNS } from './chart/compared.ts';
export { drawChart } from './chart/draw.ts';
export { chartInWords, chartOf, seriesCaption, tableOf } from './chart/make.ts';
export {
  CHART_INK,
  CHART_RULE,
  CHART_TEXT,
  type ChartData,
  type ChartPlan,
  chartPlan,
  roundTicks,
} from './chart/plan.ts';
export { contrastOf } from './drawing/contrast.ts';
export { fitText } from './drawing/fit.ts';
export { type Box, type Face, isSet as isSetLine, px, type SetLine, xmlText } from './drawing/type.ts';
export { expressionFields, expressionProblem, type WorkedOut, workOut } from './expression/evaluate.ts';
export { type FindPattern, type Found, FUNCTIONS } from './expression/functions.ts';
export { FieldTest, IS, isEmpty, numberOf, testHolds, textOf, valueAt } from './expression/test.ts';
export {
  backoffMs,
  causeOf,
  classOf,
  type Failure,
  type FailureClass,
  type FailureCode,
  lasting,
  TRIES,
} from './failure/failure.ts';
export { type BlogMistake, MISTAKES } from './failure/mistakes.ts';
export { type FailureWords, nothingFound, notSaid, oursAlready, pressedWords, wordsOf } from './failure/words.ts';
export { DOUBTS, type Doubt, type DoubtKind } from './honesty/doubt.ts';
export { doubtsOf, readSources, type Sources } from './honesty/honesty.ts';
export { type Support, supportOf } from './honesty/support.ts';
export { firstIdAt, type Ids, makeIds } from './ids/id.ts';
export { type Answering, answers } from './keyword/answered.ts';
export { WANTS, type Want, wantOf } from './keyword/aspects.ts';
export {
  type CleanedKeywords,
  type Cleaning,
  type CleanKeyword,
  cleanKeywords,
  type DroppedKeyword,
  type DropReason,
  identityOf,
} from './keyword/clean.ts';
export { excludedBy } from './keyword/excluded.ts';
export { CLOSENESS, type Closeness, type Groupable, groupPhrases, headOf } from './keyword/group.ts';
export {
  type Measures,
  OPPORTUNITY,
  opportunityBy,
  opportunityProblem,
  type Promising,
} from './keyword/opportunity.ts';
export { SPELLINGS, type Spelling, spelt } from './keyword/spelling.ts';
export { subjectSign } from './keyword/subject.ts';
export { asksQuestion, type Widened, widened } from './keyword/widen.ts';
export { languageOf } from './language/detect.ts';
export { directionOf, LanguageTag, languageTag } from './language/tag.ts';
export { countedAddress, isCounted, plainAddress } from './link/counted.ts';
export { type Fit, LinkIndex, type LinkPage, termsOfPage } from './link/linkIndex.ts';
export { type LinkLimits, type PlacedLink, placeLinks, withLink } from './link/place.ts';
export { type RankedPage, rankPages } from './link/rank.ts';
export { type LinkUse, linkUses, relinked, withPlainLinks } from './link/relink.ts';
export {
  applyRules,
  compileRules,
  type LeftAlone,
  type LinkRule,
  PLACINGS,
  type Placing,
  type RuleLink,
  type RuleSet,
} from './link/rules.ts';
export { type Micros, type Price, type TextUsage, textCeiling, textCost, tokensCeiling } from './money/price.ts';
export { type Fitting, fittingOf } from './passage/fitting.ts';
export { type Alike, alikeSentences, likeness, runNumbers } from './passage/likeness.ts';
export { carries, type PageText, type Passage, passagesOf } from './passage/passage.ts';
export { addressOfPlace, placeOf } from './passage/place.ts';
export { NEAR, type Sketch, sketchLikeness, sketchOf } from './passage/sketch.ts';
export { visibleText } from './passage/visible.ts';
export type { NewRun, Outcome, Plan, PlanNode, PlanRun, RunKey } from './plan/node.ts';
export { lineOf, locate, parsePath, stepIdOf } from './plan/path.ts';
export { plan } from './plan/planner.ts';
export { drawAt, lastRound, roundAt, supersedes } from './plan/rounds.ts';
export { type VisibleRun, visibleRuns } from './plan/scope.ts';
export { type CellText, cellTexts } from './procedure/cells.ts';
export { type ComparedLine, compareLines } from './procedure/compare.ts';
export {
  ProcedureDocument,
  ProcedureInput,
  planNodes,
  type Routines,
  readProcedure,
  routineCycle,
  routinesUsed,
  runSteps,
  sentenceOf,
} from './procedure/document.ts';
export {
  BLOCK_KINDS,
  type BlockKind,
  changeKind,
  duplicateStep,
  holdStep,
  indentStep,
  insertStep,
  type Line,
  linesOf,
  moveStep,
  nextStepId,
  outdentStep,
  type Place,
  placesOf,
  removeStep,
  shiftStep,
  stepWith,
  switchStep,
  unwrapStep,
  withWord,
  wrapSteps,
} from './procedure/edit.ts';
export { fieldName } from './procedure/fields.ts';
export {
  checkProcedure,
  checkRoutine,
  fieldsAtEnd,
  fieldsThroughout,
  type SeenField,
} from './procedure/fieldsAt.ts';
export { beginHistory, changeHistory, type History, redoHistory, undoHistory } from './procedure/history.ts';
export { blogMeant, keepsToStyle, styleNamed } from './procedure/houseStyles.ts';
export {
  ARTICLE_FIELDS,
  type ArticleFieldName,
  type ItemField,
  MAY_BRING,
  sheetColumns,
} from './procedure/itemFields.ts';
export type { CheckContext, PastMeasure, Problem, RoutineForm, ServiceRole, StepKind } from './procedure/kind.ts';
export { MOST_TURNS } from './procedure/kinds/forEach.ts';
export { PICKS } from './procedure/kinds/gist.ts';
export { mayDraw, picturesAtMost } from './procedure/kinds/illustrate.ts';
export { leastOf } from './procedure/kinds/lookUp.ts';
export { OUT_AS, type OutAs, type PublishStep, propertyIn } from './procedure/kinds/publish.ts';
export { DEGREE_DOES, DEGREES, type Degree } from './procedure/kinds/put.ts';
export { ATTACHMENTS, TELL_BY } from './procedure/kinds/tell.ts';
export { PARTS, type Part, PERSONS, type Person, type PersonAsked } from './procedure/kinds/write.ts';
export { LANGUAGES, languageCalled, languageName } from './procedure/languages.ts';
export { columnsOf } from './procedure/past.ts';
export { type Step, type StepKindName, type StepKinds, type StepOf, stepKinds } from './procedure/registry.ts';
export {
  beginning,
  listWords,
  minutesWords,
  type Names,
  plural,
  type SentencePart,
  type SentenceWord,
  sentenceText,
  type WordEditor,
} from './procedure/sentence.ts';
export { CHOSEN_ROLES, type ChosenRole, serviceNamed } from './procedure/services.ts';
export { SHIPPED, type Shipped, type ShippedFor, shipped } from './procedure/shipped.ts';
export { type ToldLine, toldProcedure } from './procedure/told.ts';
export { allSteps, innerSteps, kindOf, mapSteps } from './procedure/tree.ts';
export { type UnreadableText, unreadableTexts } from './procedure/unreadable.ts';
export { withoutSources } from './procedure/unsourced.ts';
export { procedureYaml, type ReadYaml, readProcedureYaml, type YamlProblem } from './procedure/yaml.ts';
export { type SearchTerm, searchedWordsIn, searchTerms, searchWords } from './search/words.ts';
export { contentStems, countWords, fold, sentencesOf, stem, stemCover, wordsOfText } from './sentence/sentence.ts';
export { type Series, seriesIn, seriesInRows } from './series/series.ts';
export { CELL_TYPES, type CellType, type ReadCell, readCell } from './sheet/cell.ts';
export {
  type GuessedSheet,
  guessBelow,
  guessSeparator,
  guessSheet,
  headersOf,
  letters,
  SEPARATORS,
  type Separator,
  type SheetColumn,
} from './sheet/guess.ts';
export { RESERVED_FIELDS } from './sheet/reserved.ts';
export {
  type ReadRow,
  type RowFault,
  type RowFields,
  type RowReader,
  type RowReading,
  rowReader,
} from './sheet/row.ts';
export { FirstMet } from './sheet/seen.ts';
export {
  type ArticleFacts,
  type ArticleStanding,
  articleStanding,
  ownStanding,
} from './standing/article.ts';
export { BEGUN, BRIEF, type BriefEvent, type BriefStanding, OPEN_BRIEFS, standingOf } from './standing/brief.ts';
export { decide, type Events, mayBecome, waysOf } from './standing/machine.ts';
export {
  type Act,
  MAY_BEGIN,
  PUBLICATION,
  type PublicationEvent,
  type PublicationState,
} from './standing/publication.ts';
export { OPEN_RUNS, RUN, type RunEvent, type StepState } from './standing/run.ts';
export { comparedWithStyle, type FigureCompared, ownText, type StyleCompared } from './style/compare.ts';
export {
  FORMS_OF_ADDRESS,
  type FormOfAddress,
  HouseStyleDocument,
  type HouseWord,
  MOST_PATTERNS,
  MOST_RULES,
  PLACES as STANDING_PLACES,
  PLAIN_STYLE,
  ReplacementRule,
  RULED,
  type StandingPlace,
  StandingWords,
} from './style/document.ts';
export { favouredWords } from './style/favoured.ts';
export {
  FIGURE_NAMES,
  FIGURES,
  type FigureName,
  type FigureOver,
  figuresOfText,
  figuresOver,
  rounded,
  sharesOver,
  type TextFigures,
} from './style/figures.ts';
export type { Opening } from './style/grammar.ts';
export { type Hand, handDistance, handOf, isOfHand } from './style/hand.ts';
export { styleMeasure } from './style/measure.ts';
export { putBack } from './style/putBack.ts';
export { type Reworded, reworded, type UnwantedWord, unwantedIn } from './style/reword.ts';
export { byRules, type HouseWorded, inHouseWords, ruleProblem, textInHouseWords } from './style/rules.ts';
export { type FillText, isOfHouse, leadsSomewhere, withStanding } from './style/standing.ts';
export { describedBy, isWithin, toldToWriter } from './style/told.ts';
export { GIVEN, given } from './template/given.ts';
export {
  type FilledTemplate,
  fillInstruction,
  fillMarkup,
  fillTemplate,
  TEMPLATE_FILTERS,
  TEMPLATE_TAGS,
  type TemplateFields,
  templateFields,
} from './template/template.ts';
export { allSaid, chooseVariant, countVariants, variantProblem } from './variant/variant.ts';
