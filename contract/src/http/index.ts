
export { PROBLEM_CODES, problemShape, type Problem, type ProblemStatus, withheld, type Access, type Page, type Route, SECRETS, type Secret, amount, answers, byId, currency, edtf, moneySchema, moneyShape, pageQuery, pageShape, positiveMoney, required, route, slug, text, ulid } from './http.ts';
export { saleTaxShape } from './shapes.ts';
