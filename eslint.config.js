import js from "@eslint/js";
import globals from "globals";

export default [
  { ignores: ["target/", "node_modules/", "test-results/"] },
  js.configs.recommended,
  {
    rules: {
      eqeqeq: "error",
      "no-unused-vars": ["error", { argsIgnorePattern: "^_" }],
      "prefer-const": "error",
    },
  },
  {
    files: ["web/static/js/**/*.js"],
    languageOptions: { globals: globals.browser },
  },
  {
    files: ["e2e/**/*.{js,mjs}", "web/tests/**/*.js"],
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
    rules: {
      // Playwright's fixtures name what they need by destructuring.
      "no-empty-pattern": "off",
    },
  },
];
