/** What the linter checks for this house alone. */

const NAMED = /^(title|label|placeholder|text|hint)$/;
const WORDS = /[A-Za-z]{2,}/;

/** Texts come from the catalogue, or every reader would need to know English. */
const textsFromCatalogue = {
  meta: { schema: [] },
  create(context) {
    const report = (node) => context.report({ node, message: 'Texts come from app/text.' });
    return {
      JSXText(node) {
        if (WORDS.test(node.value)) report(node);
      },
      JSXAttribute(node) {
        const { name, value } = node;
        if (value?.type === 'Literal' && NAMED.test(name.name) && WORDS.test(String(value.value))) report(value);
      },
    };
  },
};

/** The commands install the packages themselves: until then there is only what Node.js brings. */
const commandsStandAlone = {
  meta: { schema: [] },
  create(context) {
    return {
      ImportDeclaration(node) {
        if (!/^(node:|\.\/)/.test(node.source.value))
          context.report({ node, message: 'Import packages inside a function, after the install step.' });
      },
    };
  },
};

export default {
  meta: { name: 'house' },
  rules: { 'texts-from-catalogue': textsFromCatalogue, 'commands-stand-alone': commandsStandAlone },
};
