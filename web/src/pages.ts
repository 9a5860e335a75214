/** Every page but the first, in one file of their own. */
export { default as BenchPage } from "./bench/bench-page";
export { default as ComparePage } from "./bench/compare-page";
export { default as FormulaPage } from "./bench/formula-page";
export { default as LabelPage } from "./bench/label-page";
export { default as CardPage } from "./card/card-page";
export { default as CookPage } from "./cook/cook-page";
export { default as ReadPage } from "./exchange/read-page";
export { default as GuessPage } from "./guess/guess-page";
export { default as JarsPage } from "./jars/jars-page";
export { default as LarderPage } from "./larder/larder-page";
export { default as AfterPage } from "./log/after-page";
export { default as LogComparePage } from "./log/compare-page";
export { default as LogPage } from "./log/log-page";
export { default as PastPage } from "./log/past-page";
export { default as TermsPage } from "./log/terms-page";
export { default as NowPage } from "./pit/now-page";
export { default as PitPage } from "./pit/pit-page";
