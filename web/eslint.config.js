import js from "@eslint/js";
import reactHooks from "eslint-plugin-react-hooks";
import globals from "globals";
import tseslint from "typescript-eslint";

/** What each folder may not know: the way is main → stations → app → panel → canvas → ui → api. */
const STATIONS = ["brief", "parts", "face", "cut", "wire"];
const closed = (files, folders, why) => ({
  files,
  rules: {
    "no-restricted-imports": [
      "error",
      { patterns: [{ regex: `(^|/)(${folders.join("|")})/`, message: why }] },
    ],
  },
});
const BOUNDARIES = [
  closed(["src/api/**"], ["ui", "canvas", "panel", "app", "stations"], "api knows nothing of the page"),
  closed(["src/ui/**"], ["canvas", "panel", "app", "stations"], "ui knows only api"),
  closed(["src/canvas/**"], ["panel", "app", "stations"], "canvas knows only ui and api"),
  closed(["src/panel/**"], ["app", "stations"], "panel knows only canvas, ui and api"),
  closed(["src/app/**"], ["panel", "stations"], "app knows no station: main.tsx hands them in"),
  ...STATIONS.map((station) =>
    closed(
      [`src/stations/${station}/**`],
      STATIONS.filter((other) => other !== station),
      "stations never know each other",
    ),
  ),
];

export default tseslint.config(
  { ignores: ["node_modules", "src/api/schema.gen.ts"] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  reactHooks.configs.flat.recommended,
  {
    rules: {
      "no-restricted-syntax": [
        "error",
        { selector: "Literal[value=/^#[0-9A-Fa-f]{3,8}$/]", message: "Colours are tokens of styles.css" },
        {
          selector: "CallExpression[callee.property.name='map'] > Identifier[name=/^(shown|withUnit)$/]",
          message: "map hands its index on, which would be taken for the decimal places",
        },
      ],
      "max-lines": ["error", { max: 300, skipBlankLines: true, skipComments: true }],
    },
  },
  ...BOUNDARIES,
  { languageOptions: { globals: globals.browser } },
);
