import { expect, it } from "vitest";
import { variablesIn } from "./service";

it("the variables of a template, each once (RFC 6570 §2.2 and §2.4)", () => {
  expect(variablesIn("https://p.example/{hash}/{+name:3}{?w,h*}{&w}")).toEqual([
    "hash",
    "name",
    "w",
    "h",
  ]);
});

it("of one that is being typed those that are whole", () => {
  expect(variablesIn("https://p.example/{name}{?w,")).toEqual(["name"]);
  expect(variablesIn("{}{,}")).toEqual([]);
});
