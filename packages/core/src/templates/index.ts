export { findTemplates, type FindableTemplate } from './find';
export {
  mayChangeTemplate,
  maySayTeams,
  maySeeTemplate,
  type TemplateOwnership,
  type TemplateReader,
} from './rights';
