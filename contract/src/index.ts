export { ArticleDocumentSchema } from './article/document.ts';
