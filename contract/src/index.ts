export * from './api/requests.ts';
export { ArticleDocumentSchema } from './article/document.ts';
export { Problem } from './problem/problem.ts';
