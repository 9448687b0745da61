import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

// a station is reached from outside only through its public face
const faces = ["motif", "repeat", "page", "shelf"].map((name) => ({
  group: [`**/stations/${name}/*`],
  message: `import from stations/${name} itself`,
}));

export default ts.config(
  ...ts.configs.recommended,
  { plugins: { "react-hooks": hooks }, rules: hooks.configs.recommended.rules },
  { rules: { "no-restricted-imports": ["error", { patterns: faces }] } },
  { ignores: ["src/shared/api/schema.d.ts"] },
);
