import { createRequire as __cr } from 'node:module'; const require = __cr('/work/main/package.json');import {fileURLToPath as __f} from 'node:url'; import {dirname as __d} from 'node:path'; const __filename=__f(import.meta.url), __dirname=__d(__filename);
var __defProp = Object.defineProperty;
var __export = (target, all) => {
  for (var name2 in all)
    __defProp(target, name2, { get: all[name2], enumerable: true });
};

// src/core/form/value.ts
function isEmpty(value) {
  return value === null || value === void 0 || Array.isArray(value) && value.length === 0;
}
function equal(a, b) {
  if (a === b) return true;
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  if (Array.isArray(a) && Array.isArray(b)) {
    return a.length === b.length && a.every((item, i) => equal(item, b[i]));
  }
  const left = a;
  const right2 = b;
  const names = Object.keys(left);
  return names.length === Object.keys(right2).length && names.every((name2) => name2 in right2 && equal(left[name2], right2[name2]));
}
function deepFreeze(value) {
  if (typeof value === "object" && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    for (const item of Object.values(value)) deepFreeze(item);
  }
  return value;
}
function inWords(value) {
  if (value === null || value === void 0) return "nothing";
  if (typeof value === "string")
    return JSON.stringify(value.length > 60 ? `${value.slice(0, 57)}\u2026` : value);
  if (typeof value === "boolean") return value ? "yes (true)" : "no (false)";
  if (typeof value === "number") return String(value);
  if (typeof value === "function") return "a function";
  if (Array.isArray(value))
    return value.length === 0 ? "an empty list" : `a list of ${value.length}`;
  return "an object";
}

// src/core/form/fields.ts
function fieldsOf(form2) {
  return form2.pages.flatMap((page) => page.sections.flatMap((section2) => section2.fields));
}
function cellsOf(field3) {
  return field3.kind === "rows" ? field3.fields : [];
}

// src/core/explore/part-names.ts
function columnOf(part) {
  return part.replace(/\[\d+\]|#\d+/g, "");
}
function wholeOf(part) {
  return columnOf(part).split(".")[0];
}
function definitionOf(form2, part) {
  const [name2, cell] = columnOf(part).split(".");
  const field3 = fieldsOf(form2).find((one) => one.name === name2);
  return field3 === void 0 || cell === void 0 ? field3 : cellsOf(field3).find((one) => one.name === cell);
}
function containersOf(form2) {
  const around = /* @__PURE__ */ new Map();
  for (const page of form2.pages)
    for (const section2 of page.sections) {
      around.set(section2.name, [page.name]);
      for (const field3 of section2.fields) around.set(field3.name, [section2.name, page.name]);
    }
  for (const { name: name2, section: section2 } of form2.buttons ?? [])
    if (section2 !== void 0) around.set(name2, [section2, ...around.get(section2) ?? []]);
  return around;
}

// src/core/explore/finding.ts
var KINDS = [
  "throws",
  "cycle",
  "dead-end",
  "not-back",
  "at-load",
  "over-another",
  "order",
  "gone-leaves",
  "never-shown",
  "each-opening-changes",
  "load-overwrites",
  "launched-differs",
  "former-record",
  "same-roles-differ",
  "zone",
  "order-of-rows",
  "row-touches-row",
  "removed-row",
  "order-of-answers",
  "late-answer",
  "late-answer-overwrites",
  "failure-keeps",
  "decided-before",
  "left-waiting",
  "overwrites-typed",
  "orphaned",
  "submits-hidden",
  "stopped-off-screen",
  "silent-stop",
  "written-after-saving",
  "writes-invalid",
  "junk",
  "conflict",
  "never-shows",
  "never-filled",
  "never-offered",
  "one-sided",
  "no-difference"
];
function keyOf({ kind, part, aspect: aspect2 }) {
  return `${kind} ${columnOf(part)}.${aspect2}`;
}

// src/core/explore/causes.ts
var rankOf = ({ kind }) => KINDS.indexOf(kind);
function inOrderOfWeight(findings) {
  return findings.toSorted(
    (a, b) => Number(b.level === "wrong") - Number(a.level === "wrong") || rankOf(a) - rankOf(b) || a.way.steps.length - b.way.steps.length
  );
}
function causesFor({ level, kind, part, aspect: aspect2, lines, way, other }) {
  const last = lines.at(-1);
  if (last === void 0) return [`${level} ${part}.${aspect2}`];
  return [
    `${level} ${columnOf(part)}.${aspect2} ${last.behaviour}:${last.line}`,
    `${level} ${kind} ${last.behaviour}:${last.tie ?? last.line} ${JSON.stringify([way.steps, other?.steps])}`
  ];
}
function causesOf(findings) {
  const known2 = /* @__PURE__ */ new Set();
  return inOrderOfWeight(findings).filter((finding) => {
    const causes = causesFor(finding);
    const isNew = causes.every((cause) => !known2.has(cause));
    for (const cause of causes) known2.add(cause);
    return isNew;
  });
}

// node_modules/pure-rand/lib/esm/generator/congruential32.js
var MULTIPLIER = 214013;
var INCREMENT = 2531011;
var MASK = 4294967295;
var MASK_2 = -2147483649;
var MULTIPLIER_2 = -1443076087;
var INCREMENT_2 = 505908858;
var MULTIPLIER_3 = 1170746341;
var INCREMENT_3 = -755606699;
var JUMP_MULTIPLIER = 1994129409;
var JUMP_INCREMENT = 916127744;
var LinearCongruential32 = class LinearCongruential322 {
  constructor(seed) {
    this.seed = seed;
  }
  clone() {
    return new LinearCongruential322(this.seed);
  }
  next() {
    const s0 = this.seed;
    const s1 = Math.imul(s0, MULTIPLIER) + INCREMENT | 0;
    const s2 = Math.imul(s0, MULTIPLIER_2) + INCREMENT_2 | 0;
    const s3 = Math.imul(s0, MULTIPLIER_3) + INCREMENT_3 | 0;
    this.seed = s3;
    const v1 = (s1 & MASK_2) >> 16;
    const v2 = (s2 & MASK_2) >> 16;
    return (s3 & MASK_2) >> 16 | v2 << 15 | v1 << 30;
  }
  jump() {
    this.seed = Math.imul(this.seed, JUMP_MULTIPLIER) + JUMP_INCREMENT & MASK;
  }
  getState() {
    return [this.seed];
  }
};
function congruential32(seed) {
  return new LinearCongruential32(seed);
}

// node_modules/pure-rand/lib/esm/generator/mersenne.js
var N = 624;
var M = 397;
var A = 2567483615;
var F = 1812433253;
var U = 11;
var S = 7;
var B = 2636928640;
var T = 15;
var C = 4022730752;
var L = 18;
var MASK_LOWER = 2147483647;
var MASK_UPPER = 2147483648;
var JUMP_COEFS = "SUSgbA\\W`E[]KN2RUSo8XVU?HKBFRl11E\\KoWOg5B]XEWG;BE;1:oVK[`B^Z9Qd23^XTnhL>]Unda4f[X;_j9H5QD=cN<5H`3bW>9bk1mjoI2fK0obmAAINOV:>Mek_V9dd<hZ\\gC3?Fm7FEk07QH_3PLm^@?^i\\QMkgP<]oLHmFnlecg5F@7U^@4jhZ?WZS0k@GHehmM36:5^9;>Hmm`co>k:KOSkSbIINb1VFf>LXgP>GUAQTD>Ci>XMGkUflLlb?_FaFUk@?5N7i70@;1o68ah@I<HFH7R2^J:G][Gf962ITWID9GWK8ElD2G5=DcHcL]cA]P2n7A=[<bInM;IHDQnJMReRXDWbVldnGEIPij`E08Xdci3@0c:IBbD4:Nk]?lEN9j^;T`0blZX7eiWE8c`<ak7j05FZi>AjUDh?M1B?^??FAXKThf<aBOXZf7jXYGK>R<;NHk3S9YhM7STJ6`:MIE`S@7298X8W>PNK=@;lLX<i\\TXLL<W@X[X54H]in8M;;n?kkQbajgAMY=Tf9b;ZKf0QUB2FHYWfnfkDoU9YkcLd95T>lK6GM1YL\\lid:J>KYS=iJ]Y>QlF>?R5_[5QeYC=66;A32Ac>OHk_ne^0g>bK:g;KFPgbGUcPR_Z=TX3H9d03bKZ2IhEPKBo>LSGWd0iFdV8C<Y:<>T[O6lC\\blaZ>GoAYP4clf^j1IfnZJ]QeDe2X<HE[LJNWnaCg[P]Co^:IRbWPY?97UePBlZNNHY6LOBM8P>=h?Ye:_f_Sb9Ki5GDYBF4dWeMfdg^ccPllNWM7G1\\UMdoYeOOD5^e@foA22G?ADYo5:FVG[bWo96;>3kc_c1Ab30>30;1@4F8g2hY?DJ4[LOL;ZLLKo2]jo>[KMDUcR279N_kF=3WL@Dd620bMTdA\\U9k``ef2iD9JgJ8CZBHS>F^Uk;<laeaeHS<15OSeS`PcSSKBRBFY]aQ=EgUXGNg=?d56`KA@2BejY0^[_DCX`L=CGMT=BW^6S1i@2ATBVk>3_ocRA>2U:4GPQ6o>5jX2HIcV3S@On6KB<[SKB?FC_AAji9agbBFkAi\\;4I\\UJ]c36Ub@[;gQACVGY<V]SDJBUU]La\\_a@JdOO8gm2T0DJMa:8Hf7>E]noQ[1Kambn??QQ]S?1i0oMGOijb\\aGY6lQ^CJ?9bFle8<eH4UUjBINX;n8@VOA5ah^URV49B[A?ONHhHAC1J5;;h0SXYlG^0W=eJdHh^K4SGe=1HZLLam;D<Q3AOdbPcdX``82\\jo0En8jRVGC73WMCF9`d:0heS?80?C188cSn7H9<daZ]MgS4Pb^1HkA:1PU^5>^h_g[RQV@PnYBRI_]`B]Bh@Uk03eXGY`I16L76H28X`R>IROMeNVUdU[:lghLhPCQZ:4a<30YBZCYnXe[?;jc8gKI2QH2MjnWBm4nGCZW`aVU2a;P<AMI25mlW_Nm][2?b6o851X@lAm]YZ`bWRF1g<Ga:T]1NXH5Veja5P9S9>:aNg:Th1Y=5o78K>LQ8hW@5S?I83Lk5Xk;j5@I3o[d:4RjE^oS30:WP9gC\\i8aSI>QRE@4lP:7lDg8g2`Ql[2I8aBU\\BQ?B4_clL9Q]S;^e1Ob5[>3JER2`c7B=o]fPOWO<DGi;Niba1PoWPPE_Q3aX0OB0mZej\\f_M[J4Y6]1`h2MkF[GiW8Q^d3^_=<I1N2Q7]2<2j[iP7V3V821FaI]A`93bC^Z\\G=WJ;^Ih?B97_iIF@\\Dl<eK1je8SNTWo_=XFMZH<<JYLZ^YQMPgYOV45K_:]kSI8^XlO0]GY=VUfe_C_F6TOcoAlVUH:o=WhhT@K`2KFhe<3\\KXQ>W:M?S_4S5d@J^`[AGA7@3]DnGSCO`\\?E8HT75^d9\\:m\\m1egIfk8cd6bD9\\eU8\\n[Pb0Cgd^S0n9kGJHb]i5XodlKHc34Fhi9K>0U5WK`>7Ff2^KL=WC6:kc?e5C^a1T1:4:^S5flXlGNIj08AfO?Dh7T7dWO>E]NI9?ob7B7P_h[4TEP[EU;GllFTnSmg9:\\[N]<SAoKP_kPlG56A:I3T6EG8Hj=XnUE`KT5U@OQ?]7[N^MFN1_NU4KO_3::Le`8IL9[1Z1H1;V3SC\\N3]S@4U[F2mhT5dYM7[4Pg_Na0_8WTH0`bgceQS8]EG;XgD4Ib4iLTP@kE79Mn>AYRJA1U5^Blhgno:aHVYc03c3J0Vc9FjEV^M75Zfd8kVC9>iJDk`AJ[6f7DK2D^DL\\AX:6b5h31XH;RQB\\N<ZSM=J;6L[`UW^eOIFc1Y]6_dfedIe4ARh72mTXC0WND_IDHVCZRDE0eODARCEETQI5TPUQE=jEH5bS?LP[ai`F5ABRYDo2o\\@=]GT?_9;hc4Lm:\\SF9k1T<0E@fX9BG[]g0nY7k[Qmi@la8`PF0j6@Q?Ii7bLkXQ<lLHf]`:DCh@9JY5>hEVLTdhL\\b1EB0lLh<=WaO@F<;8g<d:@e:LA:cFIEdmQh7hNHfSRToW?8N4:Z1K;XEDRO;OIDh<UdVln?bjgL>?VE98[B\\K<BVjkG8LiSX;fb>jf?DUK00Aih<WY6QD6cEnHBZ8iN_fd<G8Ci`11RUW2QlW]IXV:m?;J0GXXHfGNQ>:D`=fLPbO?VOTEYLj^cNj5PM>jKB5HVjJ4U7lXaTQNL9<@\\1`m\\Ug@VQHd7>jW=ca0`miF7;N0F=GjoQ`RFchKMGTmn8cF@Oh4GGCm7m2`U9j93Tb>=kSERjE_J939F01I1;`<ijk_=_Vn=7RVAI6fnQI5KlF:C44bN<<8K=Z<2TP<1]5?<dB>^LA=ebloE2Y2:9lkh0\\<YKbHD97iE`<C5oj^1>X:??`H6BXF2hG1Q[dF0Q=>W=J?7C\\k1T?<;R44oW?1hY^G8Zm]ZKnfOf0eCFYo6?=D8?<`6HU5SXh1;=:23LmV_FSi;OJfV<^?GkIDPISeHg1LaGE:V3Y3K3H<QJfbY?=;ldZRhnhQT_mGXDLFXXhSONE6Do_0iNZagB:BPGOTH;VhHUTd6LhQm^[;dO]5Hlkg<R:F<Kn\\:I:EGojgWZ2X@SYO_dlH;G8S<>oEKabY`:oU;=JW7ig?S?EYb86b7n8ce\\]IRa]koiWY<RfO;5kUI;7lVeC?[@ZaXDiF04B8R]bg@>O<mQDoUcBLcf^f>m2kMBUloD>Ze@NN^Z11TM`inXYhE_I=kA`:ZF4d\\>`L@;ZP[`ENU5cL[BV6\\Z?Di76:jg3hE6oG6jFc8kP=[GS1;WSedYQW1:U4\\OF32GgmMC<AjO]872bdBb`bKAA?8j78b>T3VfcUB2m4J^CPRU;8dScI]LU]^bBYA5_3:Y0N5i^?200000";
var MersenneTwister = class MersenneTwister2 {
  constructor(states, index) {
    this.states = states;
    this.index = index;
  }
  clone() {
    return new MersenneTwister2(this.states.slice(), this.index);
  }
  next() {
    let y = this.states[this.index];
    y ^= y >>> U;
    y ^= y << S & B;
    y ^= y << T & C;
    y ^= y >>> L;
    this.index = twistedNext(this.states, this.index);
    return y;
  }
  getState() {
    return [this.index, ...this.states];
  }
  jump() {
    const originalStates = this.states.slice();
    const originalIndex = this.index;
    this.index = twistedNext(this.states, this.index);
    for (let i = 19932; i > 0; --i) {
      if (JUMP_COEFS.charCodeAt(i / 6 | 0) - 48 & 1 << i % 6) addState(this.states, this.index, originalStates, originalIndex);
      this.index = twistedNext(this.states, this.index);
    }
    addState(this.states, this.index, originalStates, originalIndex);
  }
};
function addState(mt, idx, originalMt, originalIdx) {
  let i = 0;
  if (originalIdx >= idx) {
    for (; i < N - originalIdx; i++) mt[i + idx] ^= originalMt[i + originalIdx];
    for (; i < N - idx; i++) mt[i + idx] ^= originalMt[i + originalIdx - N];
    for (; i < N; i++) mt[i + idx - N] ^= originalMt[i + originalIdx - N];
  } else {
    for (; i < N - idx; i++) mt[i + idx] ^= originalMt[i + originalIdx];
    for (; i < N - originalIdx; i++) mt[i + idx - N] ^= originalMt[i + originalIdx];
    for (; i < N; i++) mt[i + idx - N] ^= originalMt[i + originalIdx - N];
  }
}
function twistedNext(mt, idx) {
  if (idx < N - M) {
    const y = mt[idx] & MASK_UPPER | mt[idx + 1] & MASK_LOWER;
    mt[idx] = mt[idx + M] ^ y >>> 1 ^ -(y & 1) & A;
    return idx + 1;
  } else if (idx < N - 1) {
    const y = mt[idx] & MASK_UPPER | mt[idx + 1] & MASK_LOWER;
    mt[idx] = mt[idx + M - N] ^ y >>> 1 ^ -(y & 1) & A;
    return idx + 1;
  } else {
    const y = mt[idx] & MASK_UPPER | mt[0] & MASK_LOWER;
    mt[idx] = mt[M - 1] ^ y >>> 1 ^ -(y & 1) & A;
    return 0;
  }
}
function twist(mt) {
  for (let idx = 0; idx !== N; ++idx) twistedNext(mt, idx);
}
function mersenne(seed) {
  const out = [seed | 0];
  for (let idx = 1; idx !== N; ++idx) {
    const xored = out[idx - 1] ^ out[idx - 1] >>> 30;
    out.push(Math.imul(F, xored) + idx | 0);
  }
  twist(out);
  return new MersenneTwister(out, 0);
}

// node_modules/pure-rand/lib/esm/generator/xorshift128plus.js
var jumps = [
  1667051007,
  2321340297,
  1548169110,
  304075285
];
var XorShift128Plus = class XorShift128Plus2 {
  constructor(s01, s00, s11, s10) {
    this.s01 = s01;
    this.s00 = s00;
    this.s11 = s11;
    this.s10 = s10;
  }
  clone() {
    return new XorShift128Plus2(this.s01, this.s00, this.s11, this.s10);
  }
  next() {
    const a0 = this.s00 ^ this.s00 << 23;
    const a1 = this.s01 ^ (this.s01 << 23 | this.s00 >>> 9);
    const s10 = this.s10;
    const s11 = this.s11;
    const out = this.s00 + s10 | 0;
    this.s01 = s11;
    this.s00 = s10;
    this.s11 = a1 ^ s11 ^ a1 >>> 18 ^ s11 >>> 5;
    this.s10 = a0 ^ s10 ^ (a0 >>> 18 | a1 << 14) ^ (s10 >>> 5 | s11 << 27);
    return out;
  }
  jump() {
    let ns01 = 0;
    let ns00 = 0;
    let ns11 = 0;
    let ns10 = 0;
    let s01 = this.s01;
    let s00 = this.s00;
    let s11 = this.s11;
    let s10 = this.s10;
    for (let i = 0; i !== 4; ++i) {
      const ji = jumps[i];
      for (let mask = 1; mask; mask <<= 1) {
        if (ji & mask) {
          ns01 ^= s01;
          ns00 ^= s00;
          ns11 ^= s11;
          ns10 ^= s10;
        }
        const a0 = s00 ^ s00 << 23;
        const a1 = s01 ^ (s01 << 23 | s00 >>> 9);
        s01 = s11;
        s00 = s10;
        s10 = a0 ^ s10 ^ (a0 >>> 18 | a1 << 14) ^ (s10 >>> 5 | s11 << 27);
        s11 = a1 ^ s11 ^ a1 >>> 18 ^ s11 >>> 5;
      }
    }
    this.s01 = ns01;
    this.s00 = ns00;
    this.s11 = ns11;
    this.s10 = ns10;
  }
  getState() {
    return [
      this.s01,
      this.s00,
      this.s11,
      this.s10
    ];
  }
};
function xorshift128plus(seed) {
  return new XorShift128Plus(-1, ~seed, seed | 0, 0);
}

// node_modules/pure-rand/lib/esm/generator/xoroshiro128plus.js
var jumps2 = [
  3639956645,
  3750757012,
  1261568508,
  386426335
];
var XoroShiro128Plus = class XoroShiro128Plus2 {
  constructor(s01, s00, s11, s10) {
    this.s01 = s01;
    this.s00 = s00;
    this.s11 = s11;
    this.s10 = s10;
  }
  clone() {
    return new XoroShiro128Plus2(this.s01, this.s00, this.s11, this.s10);
  }
  next() {
    const out = this.s00 + this.s10 | 0;
    const a0 = this.s10 ^ this.s00;
    const a1 = this.s11 ^ this.s01;
    const s00 = this.s00;
    const s01 = this.s01;
    this.s00 = s00 << 24 ^ s01 >>> 8 ^ a0 ^ a0 << 16;
    this.s01 = s01 << 24 ^ s00 >>> 8 ^ a1 ^ (a1 << 16 | a0 >>> 16);
    this.s10 = a1 << 5 ^ a0 >>> 27;
    this.s11 = a0 << 5 ^ a1 >>> 27;
    return out;
  }
  jump() {
    let ns01 = 0;
    let ns00 = 0;
    let ns11 = 0;
    let ns10 = 0;
    let s01 = this.s01;
    let s00 = this.s00;
    let s11 = this.s11;
    let s10 = this.s10;
    for (let i = 0; i !== 4; ++i) {
      const ji = jumps2[i];
      for (let mask = 1; mask; mask <<= 1) {
        if (ji & mask) {
          ns01 ^= s01;
          ns00 ^= s00;
          ns11 ^= s11;
          ns10 ^= s10;
        }
        const a0 = s10 ^ s00;
        const a1 = s11 ^ s01;
        const s00_ = s00;
        const s01_ = s01;
        s00 = s00_ << 24 ^ s01_ >>> 8 ^ a0 ^ a0 << 16;
        s01 = s01_ << 24 ^ s00_ >>> 8 ^ a1 ^ (a1 << 16 | a0 >>> 16);
        s10 = a1 << 5 ^ a0 >>> 27;
        s11 = a0 << 5 ^ a1 >>> 27;
      }
    }
    this.s01 = ns01;
    this.s00 = ns00;
    this.s11 = ns11;
    this.s10 = ns10;
  }
  getState() {
    return [
      this.s01,
      this.s00,
      this.s11,
      this.s10
    ];
  }
};
function xoroshiro128plus(seed) {
  return new XoroShiro128Plus(-1, ~seed, seed | 0, 0);
}

// node_modules/pure-rand/lib/esm/utils/skipN.js
function skipN(rng, num) {
  for (let idx = 0; idx !== num; ++idx) rng.next();
}

// node_modules/pure-rand/lib/esm/distribution/uniformBigInt.js
var SBigInt = BigInt;
var NumValues = 4294967296n;
function uniformBigInt(rng, from, to) {
  const diff = to - from + 1n;
  let FinalNumValues = NumValues;
  let NumIterations = 1;
  while (FinalNumValues < diff) {
    FinalNumValues <<= 32n;
    ++NumIterations;
  }
  let value = generateNext(NumIterations, rng);
  if (value < diff) return value + from;
  if (value + diff < FinalNumValues) return value % diff + from;
  const MaxAcceptedRandom = FinalNumValues - FinalNumValues % diff;
  while (value >= MaxAcceptedRandom) value = generateNext(NumIterations, rng);
  return value % diff + from;
}
function generateNext(NumIterations, rng) {
  let value = SBigInt(rng.next() + 2147483648);
  for (let num = 1; num < NumIterations; ++num) {
    const out = rng.next();
    value = (value << 32n) + SBigInt(out + 2147483648);
  }
  return value;
}

// node_modules/pure-rand/lib/esm/distribution/uniformInt.js
function uniformIntInternal(rng, rangeSize) {
  const MaxAllowed = rangeSize > 2 ? ~~(4294967296 / rangeSize) * rangeSize : 4294967296;
  let deltaV = rng.next() + 2147483648;
  while (deltaV >= MaxAllowed) deltaV = rng.next() + 2147483648;
  return deltaV % rangeSize;
}
function fromNumberToArrayInt64(out, n2) {
  if (n2 < 0) {
    const posN = -n2;
    out.sign = -1;
    out.data[0] = ~~(posN / 4294967296);
    out.data[1] = posN >>> 0;
  } else {
    out.sign = 1;
    out.data[0] = ~~(n2 / 4294967296);
    out.data[1] = n2 >>> 0;
  }
  return out;
}
function substractArrayInt64(out, arrayIntA, arrayIntB) {
  const lowA = arrayIntA.data[1];
  const highA = arrayIntA.data[0];
  const signA = arrayIntA.sign;
  const lowB = arrayIntB.data[1];
  const highB = arrayIntB.data[0];
  const signB = arrayIntB.sign;
  out.sign = 1;
  if (signA === 1 && signB === -1) {
    const low2 = lowA + lowB;
    const high = highA + highB + (low2 > 4294967295 ? 1 : 0);
    out.data[0] = high >>> 0;
    out.data[1] = low2 >>> 0;
    return out;
  }
  let lowFirst = lowA;
  let highFirst = highA;
  let lowSecond = lowB;
  let highSecond = highB;
  if (signA === -1) {
    lowFirst = lowB;
    highFirst = highB;
    lowSecond = lowA;
    highSecond = highA;
  }
  let reminderLow = 0;
  let low = lowFirst - lowSecond;
  if (low < 0) {
    reminderLow = 1;
    low = low >>> 0;
  }
  out.data[0] = highFirst - highSecond - reminderLow;
  out.data[1] = low;
  return out;
}
function uniformArrayIntInternal(rng, out, rangeSize) {
  const maxIndex0 = rangeSize[0] + 1;
  out[0] = uniformIntInternal(rng, maxIndex0);
  out[1] = uniformIntInternal(rng, 4294967296);
  while (out[0] >= rangeSize[0] && (out[0] !== rangeSize[0] || out[1] >= rangeSize[1])) {
    out[0] = uniformIntInternal(rng, maxIndex0);
    out[1] = uniformIntInternal(rng, 4294967296);
  }
  return out;
}
var safeNumberMaxSafeInteger = Number.MAX_SAFE_INTEGER;
var sharedA = {
  sign: 1,
  data: [0, 0]
};
var sharedB = {
  sign: 1,
  data: [0, 0]
};
var sharedC = {
  sign: 1,
  data: [0, 0]
};
var sharedData = [0, 0];
function uniformLargeIntInternal(rng, from, to, rangeSize) {
  const rangeSizeArrayIntValue = rangeSize <= safeNumberMaxSafeInteger ? fromNumberToArrayInt64(sharedC, rangeSize) : substractArrayInt64(sharedC, fromNumberToArrayInt64(sharedA, to), fromNumberToArrayInt64(sharedB, from));
  if (rangeSizeArrayIntValue.data[1] === 4294967295) {
    rangeSizeArrayIntValue.data[0] += 1;
    rangeSizeArrayIntValue.data[1] = 0;
  } else rangeSizeArrayIntValue.data[1] += 1;
  uniformArrayIntInternal(rng, sharedData, rangeSizeArrayIntValue.data);
  return sharedData[0] * 4294967296 + sharedData[1] + from;
}
function uniformInt(rng, from, to) {
  const rangeSize = to - from;
  if (rangeSize <= 4294967295) return uniformIntInternal(rng, rangeSize + 1) + from;
  return uniformLargeIntInternal(rng, from, to, rangeSize);
}

// node_modules/fast-check/lib/fast-check.js
var SharedFootPrint = /* @__PURE__ */ Symbol.for("fast-check/PreconditionFailure");
var PreconditionFailure = class extends Error {
  constructor(interruptExecution = false) {
    super();
    this.interruptExecution = interruptExecution;
    this.footprint = SharedFootPrint;
  }
  static isFailure(err) {
    return err !== null && err !== void 0 && err.footprint === SharedFootPrint;
  }
};
var Nil = class {
  [Symbol.iterator]() {
    return this;
  }
  next(value) {
    return {
      value,
      done: true
    };
  }
};
var nil = new Nil();
function nilHelper() {
  return nil;
}
function* mapHelper(g, f) {
  for (const v of g) yield f(v);
}
function* flatMapHelper(g, f) {
  for (const v of g) yield* f(v);
}
function* filterHelper(g, f) {
  for (const v of g) if (f(v)) yield v;
}
function* takeNHelper(g, n2) {
  for (let i = 0; i < n2; ++i) {
    const cur = g.next();
    if (cur.done) break;
    yield cur.value;
  }
}
function* takeWhileHelper(g, f) {
  let cur = g.next();
  while (!cur.done && f(cur.value)) {
    yield cur.value;
    cur = g.next();
  }
}
function* joinHelper(g, others) {
  for (let cur = g.next(); !cur.done; cur = g.next()) yield cur.value;
  for (const s of others) for (let cur = s.next(); !cur.done; cur = s.next()) yield cur.value;
}
var safeSymbolIterator$1 = Symbol.iterator;
var Stream = class Stream2 {
  /**
  * Create an empty stream of T
  * @remarks Since 0.0.1
  */
  static nil() {
    return new Stream2(nilHelper());
  }
  /**
  * Create a stream of T from a variable number of elements
  *
  * @param elements - Elements used to create the Stream
  * @remarks Since 2.12.0
  */
  static of(...elements) {
    return new Stream2(elements[safeSymbolIterator$1]());
  }
  /**
  * Create a Stream based on `g`
  * @param g - Underlying data of the Stream
  */
  constructor(g) {
    this.g = g;
  }
  next() {
    return this.g.next();
  }
  [Symbol.iterator]() {
    return this.g;
  }
  /**
  * Map all elements of the Stream using `f`
  *
  * WARNING: It closes the current stream
  *
  * @param f - Mapper function
  * @remarks Since 0.0.1
  */
  map(f) {
    return new Stream2(mapHelper(this.g, f));
  }
  /**
  * Flat map all elements of the Stream using `f`
  *
  * WARNING: It closes the current stream
  *
  * @param f - Mapper function
  * @remarks Since 0.0.1
  */
  flatMap(f) {
    return new Stream2(flatMapHelper(this.g, f));
  }
  /**
  * Drop elements from the Stream while `f(element) === true`
  *
  * WARNING: It closes the current stream
  *
  * @param f - Drop condition
  * @remarks Since 0.0.1
  */
  dropWhile(f) {
    let foundEligible = false;
    function* helper(v) {
      if (foundEligible || !f(v)) {
        foundEligible = true;
        yield v;
      }
    }
    return this.flatMap(helper);
  }
  /**
  * Drop `n` first elements of the Stream
  *
  * WARNING: It closes the current stream
  *
  * @param n - Number of elements to drop
  * @remarks Since 0.0.1
  */
  drop(n2) {
    if (n2 <= 0) return this;
    let idx = 0;
    function helper() {
      return idx++ < n2;
    }
    return this.dropWhile(helper);
  }
  /**
  * Take elements from the Stream while `f(element) === true`
  *
  * WARNING: It closes the current stream
  *
  * @param f - Take condition
  * @remarks Since 0.0.1
  */
  takeWhile(f) {
    return new Stream2(takeWhileHelper(this.g, f));
  }
  /**
  * Take `n` first elements of the Stream
  *
  * WARNING: It closes the current stream
  *
  * @param n - Number of elements to take
  * @remarks Since 0.0.1
  */
  take(n2) {
    return new Stream2(takeNHelper(this.g, n2));
  }
  filter(f) {
    return new Stream2(filterHelper(this.g, f));
  }
  /**
  * Check whether all elements of the Stream are successful for `f`
  *
  * WARNING: It closes the current stream
  *
  * @param f - Condition to check
  * @remarks Since 0.0.1
  */
  every(f) {
    for (const v of this.g) if (!f(v)) return false;
    return true;
  }
  /**
  * Check whether one of the elements of the Stream is successful for `f`
  *
  * WARNING: It closes the current stream
  *
  * @param f - Condition to check
  * @remarks Since 0.0.1
  */
  has(f) {
    for (const v of this.g) if (f(v)) return [true, v];
    return [false, null];
  }
  /**
  * Join `others` Stream to the current Stream
  *
  * WARNING: It closes the current stream and the other ones (as soon as it iterates over them)
  *
  * @param others - Streams to join to the current Stream
  * @remarks Since 0.0.1
  */
  join(...others) {
    return new Stream2(joinHelper(this.g, others));
  }
  /**
  * Take the `nth` element of the Stream of the last (if it does not exist)
  *
  * WARNING: It closes the current stream
  *
  * @param nth - Position of the element to extract
  * @remarks Since 0.0.12
  */
  getNthOrLast(nth2) {
    let remaining = nth2;
    let last = null;
    for (const v of this.g) {
      if (remaining-- === 0) return v;
      last = v;
    }
    return last;
  }
};
function stream(g) {
  return new Stream(g);
}
var cloneMethod = /* @__PURE__ */ Symbol.for("fast-check/cloneMethod");
function hasCloneMethod(instance) {
  return instance !== null && (typeof instance === "object" || typeof instance === "function") && cloneMethod in instance && typeof instance[cloneMethod] === "function";
}
function cloneIfNeeded(instance) {
  return hasCloneMethod(instance) ? instance[cloneMethod]() : instance;
}
var safeObjectDefineProperty$4 = Object.defineProperty;
var Value = class {
  /**
  * @param value_ - Internal value of the shrinkable
  * @param context - Context associated to the generated value (useful for shrink)
  * @param customGetValue - Limited to internal usages (to ease migration to next), it will be removed on next major
  */
  constructor(value_, context, customGetValue) {
    this.value_ = value_;
    this.context = context;
    this.hasToBeCloned = customGetValue !== void 0 || hasCloneMethod(value_);
    this.readOnce = false;
    this.value = value_;
    if (this.hasToBeCloned) safeObjectDefineProperty$4(this, "value", {
      get: customGetValue !== void 0 ? customGetValue : this.getValue,
      enumerable: false,
      configurable: false
    });
  }
  /** @internal */
  getValue() {
    if (this.hasToBeCloned) {
      if (!this.readOnce) {
        this.readOnce = true;
        return this.value_;
      }
      return this.value_[cloneMethod]();
    }
    return this.value_;
  }
};
var Arbitrary = class {
  filter(refinement) {
    return new FilterArbitrary(this, refinement);
  }
  /**
  * Create another arbitrary by mapping all produced values using the provided `mapper`
  * Values produced by the new arbitrary are the result of applying `mapper` value by value
  *
  * @example
  * ```typescript
  * const rgbChannels: Arbitrary<{r:number,g:number,b:number}> = ...;
  * const color: Arbitrary<string> = rgbChannels.map(ch => `#${(ch.r*65536 + ch.g*256 + ch.b).toString(16).padStart(6, '0')}`);
  * // transform an Arbitrary producing {r,g,b} integers into an Arbitrary of '#rrggbb'
  * ```
  *
  * @param mapper - Map function, to produce a new element based on an old one
  * @param unmapper - Optional unmap function, it will never be used except when shrinking user defined values. Must throw if value is not compatible (since 3.0.0)
  * @returns New arbitrary with mapped elements
  *
  * @remarks Since 0.0.1
  */
  map(mapper, unmapper) {
    return new MapArbitrary(this, mapper, unmapper);
  }
  /**
  * Create another arbitrary by mapping a value from a base Arbirary using the provided `fmapper`
  * Values produced by the new arbitrary are the result of the arbitrary generated by applying `fmapper` to a value
  * @example
  * ```typescript
  * const arrayAndLimitArbitrary = fc.nat().chain((c: number) => fc.tuple( fc.array(fc.nat(c)), fc.constant(c)));
  * ```
  *
  * @param chainer - Chain function, to produce a new Arbitrary using a value from another Arbitrary
  * @returns New arbitrary of new type
  *
  * @remarks Since 1.2.0
  */
  chain(chainer) {
    return new ChainArbitrary(this, chainer);
  }
};
var ChainArbitrary = class extends Arbitrary {
  constructor(arb, chainer) {
    super();
    this.arb = arb;
    this.chainer = chainer;
  }
  generate(mrng, biasFactor) {
    const clonedMrng = mrng.clone();
    const src = this.arb.generate(mrng, biasFactor);
    return this.valueChainer(src, mrng, clonedMrng, biasFactor);
  }
  canShrinkWithoutContext(_value) {
    return false;
  }
  shrink(value, context) {
    if (this.isSafeContext(context)) return (!context.stoppedForOriginal ? this.arb.shrink(context.originalValue, context.originalContext).map((v) => this.valueChainer(v, context.clonedMrng.clone(), context.clonedMrng, context.originalBias)) : Stream.nil()).join(context.chainedArbitrary.shrink(value, context.chainedContext).map((dst) => {
      const newContext = {
        ...context,
        chainedContext: dst.context,
        stoppedForOriginal: true
      };
      return new Value(dst.value_, newContext);
    }));
    return Stream.nil();
  }
  valueChainer(v, generateMrng, clonedMrng, biasFactor) {
    const chainedArbitrary = this.chainer(v.value_);
    const dst = chainedArbitrary.generate(generateMrng, biasFactor);
    const context = {
      originalBias: biasFactor,
      originalValue: v.value_,
      originalContext: v.context,
      stoppedForOriginal: false,
      chainedArbitrary,
      chainedContext: dst.context,
      clonedMrng
    };
    return new Value(dst.value_, context);
  }
  isSafeContext(context) {
    return context !== null && context !== void 0 && typeof context === "object" && "originalBias" in context && "originalValue" in context && "originalContext" in context && "stoppedForOriginal" in context && "chainedArbitrary" in context && "chainedContext" in context && "clonedMrng" in context;
  }
};
function mapperWithCloneIfNeeded(v, mapper) {
  const sourceValue = v.value;
  const mappedValue = mapper(sourceValue);
  if (v.hasToBeCloned && (typeof mappedValue === "object" && mappedValue !== null || typeof mappedValue === "function") && Object.isExtensible(mappedValue) && !hasCloneMethod(mappedValue)) Object.defineProperty(mappedValue, cloneMethod, { get: () => () => mapperWithCloneIfNeeded(v, mapper)[0] });
  return [mappedValue, sourceValue];
}
function valueMapper(v, mapper) {
  const [mappedValue, sourceValue] = mapperWithCloneIfNeeded(v, mapper);
  return new Value(mappedValue, {
    originalValue: sourceValue,
    originalContext: v.context
  });
}
var MapArbitrary = class extends Arbitrary {
  constructor(arb, mapper, unmapper) {
    super();
    this.arb = arb;
    this.mapper = mapper;
    this.unmapper = unmapper;
    this.bindValueMapper = (v) => valueMapper(v, mapper);
  }
  generate(mrng, biasFactor) {
    const g = this.arb.generate(mrng, biasFactor);
    if (!g.hasToBeCloned) {
      const sourceValue = g.value;
      return new Value(this.mapper(sourceValue), {
        originalValue: sourceValue,
        originalContext: g.context
      });
    }
    return valueMapper(g, this.mapper);
  }
  canShrinkWithoutContext(value) {
    if (this.unmapper !== void 0) try {
      const unmapped = this.unmapper(value);
      return this.arb.canShrinkWithoutContext(unmapped);
    } catch {
      return false;
    }
    return false;
  }
  shrink(value, context) {
    if (this.isSafeContext(context)) return this.arb.shrink(context.originalValue, context.originalContext).map(this.bindValueMapper);
    if (this.unmapper !== void 0) {
      const unmapped = this.unmapper(value);
      return this.arb.shrink(unmapped, void 0).map(this.bindValueMapper);
    }
    return Stream.nil();
  }
  isSafeContext(context) {
    return context !== null && context !== void 0 && typeof context === "object" && "originalValue" in context && "originalContext" in context;
  }
};
var FilterArbitrary = class extends Arbitrary {
  constructor(arb, refinement) {
    super();
    this.arb = arb;
    this.refinement = refinement;
    this.bindRefinementOnValue = (v) => this.refinementOnValue(v);
  }
  generate(mrng, biasFactor) {
    while (true) {
      const g = this.arb.generate(mrng, biasFactor);
      if (this.refinementOnValue(g)) return g;
    }
  }
  canShrinkWithoutContext(value) {
    return this.arb.canShrinkWithoutContext(value) && this.refinement(value);
  }
  shrink(value, context) {
    return this.arb.shrink(value, context).filter(this.bindRefinementOnValue);
  }
  refinementOnValue(v) {
    return this.refinement(v.value);
  }
};
function isArbitrary(instance) {
  return typeof instance === "object" && instance !== null && "generate" in instance && "shrink" in instance && "canShrinkWithoutContext" in instance;
}
var untouchedApply = Function.prototype.apply;
var ApplySymbol = /* @__PURE__ */ Symbol("apply");
function safeExtractApply(f) {
  try {
    return f.apply;
  } catch {
    return;
  }
}
function safeApplyHacky(f, instance, args) {
  const ff = f;
  ff[ApplySymbol] = untouchedApply;
  const out = ff[ApplySymbol](instance, args);
  delete ff[ApplySymbol];
  return out;
}
function safeApply(f, instance, args) {
  if (safeExtractApply(f) === untouchedApply) return f.apply(instance, args);
  return safeApplyHacky(f, instance, args);
}
var SArray = Array;
var SBigInt2 = BigInt;
var SError = Error;
var SNumber = Number;
var SString = String;
var SSet = Set;
var SMap$2 = Map;
var SSymbol = Symbol;
var untouchedForEach = Array.prototype.forEach;
var untouchedIndexOf = Array.prototype.indexOf;
var untouchedJoin = Array.prototype.join;
var untouchedMap = Array.prototype.map;
var untouchedFlat = Array.prototype.flat;
var untouchedFilter = Array.prototype.filter;
var untouchedPush = Array.prototype.push;
var untouchedPop = Array.prototype.pop;
var untouchedSplice = Array.prototype.splice;
var untouchedSlice = Array.prototype.slice;
var untouchedSort = Array.prototype.sort;
var untouchedEvery = Array.prototype.every;
function extractIndexOf(instance) {
  try {
    return instance.indexOf;
  } catch {
    return;
  }
}
function extractJoin(instance) {
  try {
    return instance.join;
  } catch {
    return;
  }
}
function extractMap(instance) {
  try {
    return instance.map;
  } catch {
    return;
  }
}
function extractFilter(instance) {
  try {
    return instance.filter;
  } catch {
    return;
  }
}
function extractPush(instance) {
  try {
    return instance.push;
  } catch {
    return;
  }
}
function extractPop(instance) {
  try {
    return instance.pop;
  } catch {
    return;
  }
}
function extractSlice(instance) {
  try {
    return instance.slice;
  } catch {
    return;
  }
}
function extractEvery(instance) {
  try {
    return instance.every;
  } catch {
    return;
  }
}
function safeIndexOf(instance, ...args) {
  if (extractIndexOf(instance) === untouchedIndexOf) return instance.indexOf(...args);
  return safeApply(untouchedIndexOf, instance, args);
}
function safeJoin(instance, ...args) {
  if (extractJoin(instance) === untouchedJoin) return instance.join(...args);
  return safeApply(untouchedJoin, instance, args);
}
function safeMap(instance, fn) {
  if (extractMap(instance) === untouchedMap) return instance.map(fn);
  return safeApply(untouchedMap, instance, [fn]);
}
function safeFilter(instance, predicate) {
  if (extractFilter(instance) === untouchedFilter) return instance.filter(predicate);
  return safeApply(untouchedFilter, instance, [predicate]);
}
function safePush(instance, ...args) {
  if (extractPush(instance) === untouchedPush) return instance.push(...args);
  return safeApply(untouchedPush, instance, args);
}
function safePop$1(instance) {
  if (extractPop(instance) === untouchedPop) return instance.pop();
  return safeApply(untouchedPop, instance, []);
}
function safeSlice(instance, ...args) {
  if (extractSlice(instance) === untouchedSlice) return instance.slice(...args);
  return safeApply(untouchedSlice, instance, args);
}
function safeEvery(instance, ...args) {
  if (extractEvery(instance) === untouchedEvery) return instance.every(...args);
  return safeApply(untouchedEvery, instance, args);
}
var untouchedGetTime = Date.prototype.getTime;
var untouchedToISOString = Date.prototype.toISOString;
function extractGetTime(instance) {
  try {
    return instance.getTime;
  } catch {
    return;
  }
}
function extractToISOString(instance) {
  try {
    return instance.toISOString;
  } catch {
    return;
  }
}
function safeGetTime(instance) {
  if (extractGetTime(instance) === untouchedGetTime) return instance.getTime();
  return safeApply(untouchedGetTime, instance, []);
}
function safeToISOString(instance) {
  if (extractToISOString(instance) === untouchedToISOString) return instance.toISOString();
  return safeApply(untouchedToISOString, instance, []);
}
var untouchedAdd = Set.prototype.add;
var untouchedHas = Set.prototype.has;
function extractHas(instance) {
  try {
    return instance.has;
  } catch (err) {
    return;
  }
}
function safeHas(instance, value) {
  if (extractHas(instance) === untouchedHas) return instance.has(value);
  return safeApply(untouchedHas, instance, [value]);
}
var untouchedSet = WeakMap.prototype.set;
var untouchedGet = WeakMap.prototype.get;
function extractSet(instance) {
  try {
    return instance.set;
  } catch (err) {
    return;
  }
}
function extractGet(instance) {
  try {
    return instance.get;
  } catch (err) {
    return;
  }
}
function safeSet(instance, key, value) {
  if (extractSet(instance) === untouchedSet) return instance.set(key, value);
  return safeApply(untouchedSet, instance, [key, value]);
}
function safeGet(instance, key) {
  if (extractGet(instance) === untouchedGet) return instance.get(key);
  return safeApply(untouchedGet, instance, [key]);
}
var untouchedMapSet = Map.prototype.set;
var untouchedMapGet = Map.prototype.get;
var untouchedMapHas = Map.prototype.has;
function extractMapSet(instance) {
  try {
    return instance.set;
  } catch (err) {
    return;
  }
}
function extractMapGet(instance) {
  try {
    return instance.get;
  } catch (err) {
    return;
  }
}
function safeMapSet(instance, key, value) {
  if (extractMapSet(instance) === untouchedMapSet) return instance.set(key, value);
  return safeApply(untouchedMapSet, instance, [key, value]);
}
function safeMapGet(instance, key) {
  if (extractMapGet(instance) === untouchedMapGet) return instance.get(key);
  return safeApply(untouchedMapGet, instance, [key]);
}
var untouchedSplit = String.prototype.split;
var untouchedStartsWith = String.prototype.startsWith;
var untouchedEndsWith = String.prototype.endsWith;
var untouchedSubstring = String.prototype.substring;
var untouchedToLowerCase = String.prototype.toLowerCase;
var untouchedToUpperCase = String.prototype.toUpperCase;
var untouchedPadStart = String.prototype.padStart;
var untouchedCharCodeAt = String.prototype.charCodeAt;
var untouchedNormalize = String.prototype.normalize;
var untouchedReplace = String.prototype.replace;
function extractSubstring(instance) {
  try {
    return instance.substring;
  } catch {
    return;
  }
}
function extractCharCodeAt(instance) {
  try {
    return instance.charCodeAt;
  } catch {
    return;
  }
}
function extractNormalize(instance) {
  try {
    return instance.normalize;
  } catch (err) {
    return;
  }
}
function safeSubstring(instance, ...args) {
  if (extractSubstring(instance) === untouchedSubstring) return instance.substring(...args);
  return safeApply(untouchedSubstring, instance, args);
}
function safeCharCodeAt(instance, index) {
  if (extractCharCodeAt(instance) === untouchedCharCodeAt) return instance.charCodeAt(index);
  return safeApply(untouchedCharCodeAt, instance, [index]);
}
function safeNormalize(instance, form2) {
  if (extractNormalize(instance) === untouchedNormalize) return instance.normalize(form2);
  return safeApply(untouchedNormalize, instance, [form2]);
}
var untouchedNumberToString = Number.prototype.toString;
var untouchedToString = Object.prototype.toString;
function safeToString(instance) {
  return safeApply(untouchedToString, instance, []);
}
var untouchedErrorToString = Error.prototype.toString;
var LazyIterableIterator = class {
  constructor(producer) {
    this.producer = producer;
  }
  [Symbol.iterator]() {
    if (this.it === void 0) this.it = this.producer();
    return this.it;
  }
  next() {
    if (this.it === void 0) this.it = this.producer();
    return this.it.next();
  }
};
function makeLazy(producer) {
  return new LazyIterableIterator(producer);
}
var safeArrayIsArray$4 = Array.isArray;
var safeObjectDefineProperty$3 = Object.defineProperty;
function tupleMakeItCloneable(vs, ctxs, values) {
  return safeObjectDefineProperty$3(vs, cloneMethod, { value: () => {
    const cloned = [];
    for (let idx = 0; idx !== values.length; ++idx) {
      let current = values[idx];
      if (current === void 0) current = new Value(vs[idx], ctxs[idx]);
      safePush(cloned, current.value);
    }
    tupleMakeItCloneable(cloned, ctxs, values);
    return cloned;
  } });
}
function tupleShrink(arbs, value, context) {
  const shrinks = [];
  const safeContext = safeArrayIsArray$4(context) ? context : [];
  for (let idx = 0; idx !== arbs.length; ++idx) safePush(shrinks, makeLazy(() => arbs[idx].shrink(value[idx], safeContext[idx]).map((v) => {
    let cloneable = false;
    const vs = [];
    const ctxs = [];
    const mapped = [];
    for (let nestedIdx = 0; nestedIdx !== arbs.length; ++nestedIdx) {
      const nestedV = nestedIdx === idx ? v : new Value(cloneIfNeeded(value[nestedIdx]), safeContext[nestedIdx]);
      if (nestedV.hasToBeCloned) {
        cloneable = true;
        mapped[nestedIdx] = nestedV;
      }
      safePush(vs, nestedV.value);
      safePush(ctxs, nestedV.context);
    }
    if (cloneable) tupleMakeItCloneable(vs, ctxs, mapped);
    return new Value(vs, ctxs);
  })));
  return Stream.nil().join(...shrinks);
}
var TupleArbitrary = class extends Arbitrary {
  constructor(arbs) {
    super();
    this.arbs = arbs;
    for (let idx = 0; idx !== arbs.length; ++idx) {
      const arb = arbs[idx];
      if (arb === null || arb === void 0 || arb.generate === null || arb.generate === void 0) throw new Error(`Invalid parameter encountered at index ${idx}: expecting an Arbitrary`);
    }
  }
  generate(mrng, biasFactor) {
    let cloneable = false;
    const vs = [];
    const ctxs = [];
    const mapped = [];
    for (let idx = 0; idx !== this.arbs.length; ++idx) {
      const v = this.arbs[idx].generate(mrng, biasFactor);
      if (v.hasToBeCloned) {
        cloneable = true;
        mapped[idx] = v;
      }
      safePush(vs, v.value);
      safePush(ctxs, v.context);
    }
    if (cloneable) tupleMakeItCloneable(vs, ctxs, mapped);
    return new Value(vs, ctxs);
  }
  canShrinkWithoutContext(value) {
    if (!safeArrayIsArray$4(value) || value.length !== this.arbs.length) return false;
    for (let index = 0; index !== this.arbs.length; ++index) if (!this.arbs[index].canShrinkWithoutContext(value[index])) return false;
    return true;
  }
  shrink(value, context) {
    return tupleShrink(this.arbs, value, context);
  }
};
function tuple(...arbs) {
  return new TupleArbitrary(arbs);
}
var safeMathLog$3 = Math.log;
function runIdToFrequency(runId) {
  return 2 + ~~(safeMathLog$3(runId + 1) * 0.4342944819032518);
}
var globalParameters = {};
function readConfigureGlobal() {
  return globalParameters;
}
var UndefinedContextPlaceholder = /* @__PURE__ */ Symbol("UndefinedContextPlaceholder");
function noUndefinedAsContext(value) {
  if (value.context !== void 0) return value;
  if (value.hasToBeCloned) return new Value(value.value_, UndefinedContextPlaceholder, () => value.value);
  return new Value(value.value_, UndefinedContextPlaceholder);
}
var dummyHook = () => {
};
var Property = class {
  constructor(arb, predicate) {
    this.arb = arb;
    this.predicate = predicate;
    const { beforeEach = dummyHook, afterEach = dummyHook, asyncBeforeEach, asyncAfterEach } = readConfigureGlobal() || {};
    if (asyncBeforeEach !== void 0) throw SError(`"asyncBeforeEach" can't be set when running synchronous properties`);
    if (asyncAfterEach !== void 0) throw SError(`"asyncAfterEach" can't be set when running synchronous properties`);
    this.beforeEachHook = beforeEach;
    this.afterEachHook = afterEach;
  }
  isAsync() {
    return false;
  }
  generate(mrng, runId) {
    return noUndefinedAsContext(this.arb.generate(mrng, runId !== void 0 ? runIdToFrequency(runId) : void 0));
  }
  shrink(value) {
    if (value.context === void 0 && !this.arb.canShrinkWithoutContext(value.value_)) return Stream.nil();
    const safeContext = value.context !== UndefinedContextPlaceholder ? value.context : void 0;
    return this.arb.shrink(value.value_, safeContext).map(noUndefinedAsContext);
  }
  runBeforeEach() {
    this.beforeEachHook();
  }
  runAfterEach() {
    this.afterEachHook();
  }
  run(v) {
    try {
      const output = this.predicate(v);
      return output === void 0 || output === true ? null : { error: new SError("Property failed by returning false") };
    } catch (err) {
      if (PreconditionFailure.isFailure(err)) return err;
      return { error: err };
    }
  }
  beforeEach(hookFunction) {
    const previousBeforeEachHook = this.beforeEachHook;
    this.beforeEachHook = () => hookFunction(previousBeforeEachHook);
    return this;
  }
  afterEach(hookFunction) {
    const previousAfterEachHook = this.afterEachHook;
    this.afterEachHook = () => hookFunction(previousAfterEachHook);
    return this;
  }
};
function adaptRandomGeneratorTo8x(rng) {
  if ("unsafeNext" in rng) {
    if (rng.unsafeJump === void 0) return {
      clone: () => adaptRandomGeneratorTo8x(rng),
      next: () => rng.unsafeNext(),
      getState: () => rng.getState()
    };
    return {
      clone: () => adaptRandomGeneratorTo8x(rng),
      next: () => rng.unsafeNext(),
      jump: () => rng.unsafeJump(),
      getState: () => rng.getState()
    };
  }
  return rng;
}
function adaptRandomGeneratorToInternal(rng) {
  if ("jump" in rng && typeof rng.jump === "function") return rng;
  return {
    clone: () => adaptRandomGeneratorToInternal(rng),
    next: () => rng.next(),
    jump: () => skipN(rng, 42),
    getState: () => rng.getState()
  };
}
function adaptRandomGenerator(rng) {
  return adaptRandomGeneratorToInternal(adaptRandomGeneratorTo8x(rng));
}
var safeDateNow$1 = Date.now;
var safeMathMin$6 = Math.min;
var safeMathRandom = Math.random;
var QualifiedParameters = class {
  constructor(op) {
    const p = op || {};
    this.seed = readSeed(p);
    this.randomType = readRandomType(p);
    this.numRuns = readNumRuns(p);
    this.verbose = readVerbose(p);
    this.maxSkipsPerRun = p.maxSkipsPerRun !== void 0 ? p.maxSkipsPerRun : 100;
    this.timeout = safeTimeout(p.timeout);
    this.skipAllAfterTimeLimit = safeTimeout(p.skipAllAfterTimeLimit);
    this.interruptAfterTimeLimit = safeTimeout(p.interruptAfterTimeLimit);
    this.markInterruptAsFailure = p.markInterruptAsFailure === true;
    this.skipEqualValues = p.skipEqualValues === true;
    this.ignoreEqualValues = p.ignoreEqualValues === true;
    this.logger = p.logger !== void 0 ? p.logger : (v) => {
      console.log(v);
    };
    this.path = p.path !== void 0 ? p.path : "";
    this.unbiased = p.unbiased === true;
    this.examples = p.examples !== void 0 ? p.examples : [];
    this.endOnFailure = p.endOnFailure === true;
    this.reporter = p.reporter;
    this.asyncReporter = p.asyncReporter;
    this.includeErrorInReport = p.includeErrorInReport === true;
    this.plugins = p.plugins !== void 0 ? p.plugins : [];
  }
  toParameters() {
    return {
      seed: this.seed,
      randomType: this.randomType,
      numRuns: this.numRuns,
      maxSkipsPerRun: this.maxSkipsPerRun,
      timeout: this.timeout,
      skipAllAfterTimeLimit: this.skipAllAfterTimeLimit,
      interruptAfterTimeLimit: this.interruptAfterTimeLimit,
      markInterruptAsFailure: this.markInterruptAsFailure,
      skipEqualValues: this.skipEqualValues,
      ignoreEqualValues: this.ignoreEqualValues,
      path: this.path,
      logger: this.logger,
      unbiased: this.unbiased,
      verbose: this.verbose,
      examples: this.examples,
      endOnFailure: this.endOnFailure,
      reporter: this.reporter,
      asyncReporter: this.asyncReporter,
      includeErrorInReport: this.includeErrorInReport,
      plugins: this.plugins
    };
  }
};
function createQualifiedRandomGenerator(random) {
  return (seed) => {
    return adaptRandomGenerator(random(seed));
  };
}
function readSeed(p) {
  if (p.seed === void 0) return safeDateNow$1() ^ safeMathRandom() * 4294967296;
  const seed32 = p.seed | 0;
  if (p.seed === seed32) return seed32;
  return seed32 ^ (p.seed - seed32) * 4294967296;
}
function readRandomType(p) {
  if (p.randomType === void 0) return xorshift128plus;
  if (typeof p.randomType === "string") switch (p.randomType) {
    case "mersenne":
      return createQualifiedRandomGenerator(mersenne);
    case "congruential":
    case "congruential32":
      return createQualifiedRandomGenerator(congruential32);
    case "xorshift128plus":
      return xorshift128plus;
    case "xoroshiro128plus":
      return xoroshiro128plus;
    default:
      throw new Error(`Invalid random specified: '${p.randomType}'`);
  }
  const mrng = p.randomType(0);
  if ("min" in mrng && mrng.min !== -2147483648) throw new Error(`Invalid random number generator: min must equal -0x80000000, got ${String(mrng.min)}`);
  if ("max" in mrng && mrng.max !== 2147483647) throw new Error(`Invalid random number generator: max must equal 0x7fffffff, got ${String(mrng.max)}`);
  if (mrng === adaptRandomGenerator(mrng)) return p.randomType;
  return createQualifiedRandomGenerator(p.randomType);
}
function readNumRuns(p) {
  const defaultValue = 100;
  if (p.numRuns !== void 0) return p.numRuns;
  if (p.num_runs !== void 0) return p.num_runs;
  return defaultValue;
}
function readVerbose(p) {
  if (p.verbose === void 0) return 0;
  if (typeof p.verbose === "boolean") return p.verbose === true ? 1 : 0;
  if (p.verbose <= 0) return 0;
  if (p.verbose >= 2) return 2;
  return p.verbose | 0;
}
function safeTimeout(value) {
  if (value === void 0) return;
  return safeMathMin$6(value, 2147483647);
}
function read(op) {
  return new QualifiedParameters(op);
}
var UnbiasedProperty = class {
  constructor(property) {
    this.property = property;
  }
  isAsync() {
    return this.property.isAsync();
  }
  generate(mrng, _runId) {
    return this.property.generate(mrng, void 0);
  }
  shrink(value) {
    return this.property.shrink(value);
  }
  run(v) {
    return this.property.run(v);
  }
  runBeforeEach() {
    return this.property.runBeforeEach();
  }
  runAfterEach() {
    return this.property.runAfterEach();
  }
};
var safeArrayFrom = Array.from;
var safeBufferIsBuffer = typeof Buffer !== "undefined" ? Buffer.isBuffer : void 0;
var safeJsonStringify$1 = JSON.stringify;
var safeNumberIsNaN$5 = Number.isNaN;
var safeObjectKeys$5 = Object.keys;
var safeObjectGetOwnPropertySymbols$2 = Object.getOwnPropertySymbols;
var safeObjectGetOwnPropertyDescriptor$3 = Object.getOwnPropertyDescriptor;
var safeObjectGetPrototypeOf$2 = Object.getPrototypeOf;
var safeNegativeInfinity$7 = Number.NEGATIVE_INFINITY;
var safePositiveInfinity$8 = Number.POSITIVE_INFINITY;
var toStringMethod = /* @__PURE__ */ Symbol.for("fast-check/toStringMethod");
function hasToStringMethod(instance) {
  return instance !== null && (typeof instance === "object" || typeof instance === "function") && toStringMethod in instance && typeof instance[toStringMethod] === "function";
}
var asyncToStringMethod = /* @__PURE__ */ Symbol.for("fast-check/asyncToStringMethod");
function hasAsyncToStringMethod(instance) {
  return instance !== null && (typeof instance === "object" || typeof instance === "function") && asyncToStringMethod in instance && typeof instance[asyncToStringMethod] === "function";
}
var findSymbolNameRegex = /^Symbol\((.*)\)$/;
function getSymbolDescription(s) {
  if (s.description !== void 0) return s.description;
  const m = findSymbolNameRegex.exec(SString(s));
  return m && m[1].length ? m[1] : null;
}
function stringifyNumber(numValue) {
  switch (numValue) {
    case 0:
      return 1 / numValue === safeNegativeInfinity$7 ? "-0" : "0";
    case safeNegativeInfinity$7:
      return "Number.NEGATIVE_INFINITY";
    case safePositiveInfinity$8:
      return "Number.POSITIVE_INFINITY";
    default:
      return numValue === numValue ? SString(numValue) : "Number.NaN";
  }
}
function isSparseArray(arr) {
  let previousNumberedIndex = -1;
  for (const index in arr) {
    const numberedIndex = Number(index);
    if (numberedIndex !== previousNumberedIndex + 1) return true;
    previousNumberedIndex = numberedIndex;
  }
  return previousNumberedIndex + 1 !== arr.length;
}
function stringifyInternal(value, previousValues, getAsyncContent) {
  const currentValues = [...previousValues, value];
  if (typeof value === "object") {
    if (safeIndexOf(previousValues, value) !== -1) return "[cyclic]";
  }
  if (hasAsyncToStringMethod(value)) {
    const content = getAsyncContent(value);
    if (content.state === "fulfilled") return content.value;
  }
  if (hasToStringMethod(value)) try {
    return value[toStringMethod]();
  } catch {
  }
  switch (safeToString(value)) {
    case "[object Array]": {
      const arr = value;
      if (arr.length >= 50 && isSparseArray(arr)) {
        const assignments = [];
        for (const index in arr) if (!safeNumberIsNaN$5(Number(index))) safePush(assignments, `${index}:${stringifyInternal(arr[index], currentValues, getAsyncContent)}`);
        return assignments.length !== 0 ? `Object.assign(Array(${arr.length}),{${safeJoin(assignments, ",")}})` : `Array(${arr.length})`;
      }
      const stringifiedArray = safeJoin(safeMap(arr, (v) => stringifyInternal(v, currentValues, getAsyncContent)), ",");
      return arr.length === 0 || arr.length - 1 in arr ? `[${stringifiedArray}]` : `[${stringifiedArray},]`;
    }
    case "[object BigInt]":
      return `${value}n`;
    case "[object Boolean]": {
      const unboxedToString = value == true ? "true" : "false";
      return typeof value === "boolean" ? unboxedToString : `new Boolean(${unboxedToString})`;
    }
    case "[object Date]": {
      const d = value;
      return safeNumberIsNaN$5(safeGetTime(d)) ? `new Date(NaN)` : `new Date(${safeJsonStringify$1(safeToISOString(d))})`;
    }
    case "[object Map]":
      return `new Map(${stringifyInternal(Array.from(value), currentValues, getAsyncContent)})`;
    case "[object Null]":
      return `null`;
    case "[object Number]":
      return typeof value === "number" ? stringifyNumber(value) : `new Number(${stringifyNumber(Number(value))})`;
    case "[object Object]": {
      try {
        const toStringAccessor = value.toString;
        if (typeof toStringAccessor === "function" && toStringAccessor !== Object.prototype.toString) return value.toString();
      } catch {
        return "[object Object]";
      }
      const mapper = (k) => `${k === "__proto__" ? '["__proto__"]' : typeof k === "symbol" ? `[${stringifyInternal(k, currentValues, getAsyncContent)}]` : safeJsonStringify$1(k)}:${stringifyInternal(value[k], currentValues, getAsyncContent)}`;
      return "{" + safeJoin([
        ...safeObjectGetPrototypeOf$2(value) === null ? ["__proto__:null"] : [],
        ...safeMap(safeObjectKeys$5(value), mapper),
        ...safeMap(safeFilter(safeObjectGetOwnPropertySymbols$2(value), (s) => {
          const descriptor = safeObjectGetOwnPropertyDescriptor$3(value, s);
          return descriptor && descriptor.enumerable;
        }), mapper)
      ], ",") + "}";
    }
    case "[object Set]":
      return `new Set(${stringifyInternal(Array.from(value), currentValues, getAsyncContent)})`;
    case "[object String]":
      return typeof value === "string" ? safeJsonStringify$1(value) : `new String(${safeJsonStringify$1(value)})`;
    case "[object Symbol]": {
      const s = value;
      if (SSymbol.keyFor(s) !== void 0) return `Symbol.for(${safeJsonStringify$1(SSymbol.keyFor(s))})`;
      const desc = getSymbolDescription(s);
      if (desc === null) return "Symbol()";
      return s === (desc.startsWith("Symbol.") && SSymbol[desc.substring(7)]) ? desc : `Symbol(${safeJsonStringify$1(desc)})`;
    }
    case "[object Promise]": {
      const promiseContent = getAsyncContent(value);
      switch (promiseContent.state) {
        case "fulfilled":
          return `Promise.resolve(${stringifyInternal(promiseContent.value, currentValues, getAsyncContent)})`;
        case "rejected":
          return `Promise.reject(${stringifyInternal(promiseContent.value, currentValues, getAsyncContent)})`;
        case "pending":
          return `new Promise(() => {/*pending*/})`;
        default:
          return `new Promise(() => {/*unknown*/})`;
      }
    }
    case "[object Error]":
      if (value instanceof Error) return `new Error(${stringifyInternal(value.message, currentValues, getAsyncContent)})`;
      break;
    case "[object Undefined]":
      return `undefined`;
    case "[object Int8Array]":
    case "[object Uint8Array]":
    case "[object Uint8ClampedArray]":
    case "[object Int16Array]":
    case "[object Uint16Array]":
    case "[object Int32Array]":
    case "[object Uint32Array]":
    case "[object Float32Array]":
    case "[object Float64Array]":
    case "[object BigInt64Array]":
    case "[object BigUint64Array]": {
      if (typeof safeBufferIsBuffer === "function" && safeBufferIsBuffer(value)) return `Buffer.from(${value.buffer.detached ? "/*detached ArrayBuffer*/" : stringifyInternal(safeArrayFrom(value.values()), currentValues, getAsyncContent)})`;
      const valuePrototype = safeObjectGetPrototypeOf$2(value);
      const className = valuePrototype && valuePrototype.constructor && valuePrototype.constructor.name;
      if (typeof className === "string") {
        const typedArray = value;
        if (typedArray.buffer.detached) return `${className}.from(/*detached ArrayBuffer*/)`;
        const valuesFromTypedArr = typedArray.values();
        return `${className}.from(${stringifyInternal(safeArrayFrom(valuesFromTypedArr), currentValues, getAsyncContent)})`;
      }
      break;
    }
  }
  try {
    return value.toString();
  } catch {
    return safeToString(value);
  }
}
function stringify(value) {
  return stringifyInternal(value, [], () => ({
    state: "unknown",
    value: void 0
  }));
}
var safeDateNow = Date.now;
var MIN_INT = -2147483648;
var MAX_INT = 2147483647;
var DBL_FACTOR = Math.pow(2, 27);
var DBL_DIVISOR = Math.pow(2, -53);
var Random = class Random2 {
  /**
  * Create a mutable random number generator by cloning the passed one and mutate it
  * @param sourceRng - Immutable random generator from pure-rand library, will not be altered (a clone will be)
  */
  constructor(sourceRng) {
    this.internalRng = adaptRandomGenerator(sourceRng.clone());
  }
  /**
  * Clone the random number generator
  */
  clone() {
    return new Random2(this.internalRng);
  }
  /**
  * Generate an integer having `bits` random bits
  * @param bits - Number of bits to generate
  * @deprecated Prefer {@link nextInt} with explicit bounds: `nextInt(0, (1 << bits) - 1)`
  */
  next(bits) {
    return uniformInt(this.internalRng, 0, (1 << bits) - 1);
  }
  /**
  * Generate a random boolean
  * @deprecated Prefer {@link nextInt} with explicit bounds: `nextInt(0, 1) === 1`
  */
  nextBoolean() {
    return uniformInt(this.internalRng, 0, 1) === 1;
  }
  nextInt(min, max) {
    return uniformInt(this.internalRng, min === void 0 ? MIN_INT : min, max === void 0 ? MAX_INT : max);
  }
  /**
  * Generate a random bigint between min (included) and max (included)
  * @param min - Minimal bigint value
  * @param max - Maximal bigint value
  */
  nextBigInt(min, max) {
    return uniformBigInt(this.internalRng, min, max);
  }
  /**
  * Generate a random floating point number between 0.0 (included) and 1.0 (excluded)
  * @deprecated Prefer {@link nextInt} with explicit bounds
  */
  nextDouble() {
    const a = this.next(26);
    const b = this.next(27);
    return (a * DBL_FACTOR + b) * DBL_DIVISOR;
  }
  /**
  * Extract the internal state of the internal RandomGenerator backing the current instance of Random
  */
  getState() {
    if ("getState" in this.internalRng && typeof this.internalRng.getState === "function") return this.internalRng.getState();
  }
};
function tossNext(generator, rng, index) {
  rng.jump();
  return generator.generate(new Random(rng), index);
}
function* toss(generator, seed, random, examples) {
  for (let idx = 0; idx !== examples.length; ++idx) yield new Value(examples[idx], void 0);
  for (let idx = 0, rng = random(seed); ; ++idx) yield tossNext(generator, rng, idx);
}
function lazyGenerate(generator, rng, idx) {
  return () => generator.generate(new Random(rng), idx);
}
function* lazyToss(generator, seed, random, examples) {
  yield* safeMap(examples, (e) => () => new Value(e, void 0));
  let idx = 0;
  const rng = adaptRandomGenerator(random(seed));
  for (; ; ) {
    rng.jump();
    yield lazyGenerate(generator, rng, idx++);
  }
}
function produce(producer) {
  return producer();
}
function pathWalk(path, initialProducers, shrink) {
  const producers = initialProducers;
  const segments = path.split(":").map((text3) => +text3);
  if (segments.length === 0) return producers.map(produce);
  if (!segments.every((v) => !Number.isNaN(v))) throw new Error(`Unable to replay, got invalid path=${path}`);
  let values = producers.drop(segments[0]).map(produce);
  for (const s of segments.slice(1)) {
    const valueToShrink = values.getNthOrLast(0);
    if (valueToShrink === null) throw new Error(`Unable to replay, got wrong path=${path}`);
    values = shrink(valueToShrink).drop(s);
  }
  return values;
}
function toProperty(generator, qParams) {
  const prop = !Object.prototype.hasOwnProperty.call(generator, "isAsync") ? new Property(generator, () => true) : generator;
  return qParams.unbiased === true ? new UnbiasedProperty(prop) : prop;
}
function streamSample(generator, params) {
  const qParams = read(typeof params === "number" ? {
    ...readConfigureGlobal(),
    numRuns: params
  } : {
    ...readConfigureGlobal(),
    ...params
  });
  const nextProperty = toProperty(generator, qParams);
  const shrink = nextProperty.shrink.bind(nextProperty);
  return (qParams.path.length === 0 ? stream(toss(nextProperty, qParams.seed, qParams.randomType, qParams.examples)) : pathWalk(qParams.path, stream(lazyToss(nextProperty, qParams.seed, qParams.randomType, qParams.examples)), shrink)).take(qParams.numRuns).map((s) => s.value_);
}
function sample(generator, params) {
  return [...streamSample(generator, params)];
}
var safeMathFloor$6 = Math.floor;
var safeMathLog$2 = Math.log;
function integerLogLike(v) {
  return safeMathFloor$6(safeMathLog$2(v) / safeMathLog$2(2));
}
function biasNumericRange(min, max, logLike) {
  if (min === max) return [{
    min,
    max
  }];
  if (min < 0 && max > 0) {
    const logMin = logLike(-min);
    const logMax = logLike(max);
    return [
      {
        min: -logMin,
        max: logMax
      },
      {
        min: max - logMax,
        max
      },
      {
        min,
        max: min + logMin
      }
    ];
  }
  const logGap = logLike(max - min);
  const arbCloseToMin = {
    min,
    max: min + logGap
  };
  const arbCloseToMax = {
    min: max - logGap,
    max
  };
  return min < 0 ? [arbCloseToMax, arbCloseToMin] : [arbCloseToMin, arbCloseToMax];
}
var safeMathCeil = Math.ceil;
var safeMathFloor$5 = Math.floor;
function halvePosInteger(n2) {
  return safeMathFloor$5(n2 / 2);
}
function halveNegInteger(n2) {
  return safeMathCeil(n2 / 2);
}
function shrinkInteger(current, target, tryTargetAsap) {
  const realGap = current - target;
  function* shrinkDecr() {
    let previous = tryTargetAsap ? void 0 : target;
    const gap = tryTargetAsap ? realGap : halvePosInteger(realGap);
    for (let toremove = gap; toremove > 0; toremove = halvePosInteger(toremove)) {
      const next = toremove === realGap ? target : current - toremove;
      yield new Value(next, previous);
      previous = next;
    }
  }
  function* shrinkIncr() {
    let previous = tryTargetAsap ? void 0 : target;
    const gap = tryTargetAsap ? realGap : halveNegInteger(realGap);
    for (let toremove = gap; toremove < 0; toremove = halveNegInteger(toremove)) {
      const next = toremove === realGap ? target : current - toremove;
      yield new Value(next, previous);
      previous = next;
    }
  }
  return realGap > 0 ? stream(shrinkDecr()) : stream(shrinkIncr());
}
var safeMathSign = Math.sign;
var safeNumberIsInteger$6 = Number.isInteger;
var safeObjectIs$6 = Object.is;
var IntegerArbitrary = class IntegerArbitrary2 extends Arbitrary {
  constructor(min, max) {
    super();
    this.min = min;
    this.max = max;
    this.ranges = biasNumericRange(min, max, integerLogLike);
  }
  generate(mrng, biasFactor) {
    if (biasFactor === void 0 || mrng.nextInt(1, biasFactor) !== 1) return new Value(mrng.nextInt(this.min, this.max), void 0);
    const ranges = this.ranges;
    if (ranges.length === 1) {
      const range2 = ranges[0];
      return new Value(mrng.nextInt(range2.min, range2.max), void 0);
    }
    const id = mrng.nextInt(-2 * (ranges.length - 1), ranges.length - 2);
    const range = id < 0 ? ranges[0] : ranges[id + 1];
    return new Value(mrng.nextInt(range.min, range.max), void 0);
  }
  canShrinkWithoutContext(value) {
    return typeof value === "number" && safeNumberIsInteger$6(value) && !safeObjectIs$6(value, -0) && this.min <= value && value <= this.max;
  }
  shrink(current, context) {
    if (!IntegerArbitrary2.isValidContext(current, context)) return shrinkInteger(current, this.min <= 0 && this.max >= 0 ? 0 : this.min < 0 ? this.max : this.min, true);
    if (this.isLastChanceTry(current, context)) return Stream.of(new Value(context, void 0));
    return shrinkInteger(current, context, false);
  }
  isLastChanceTry(current, context) {
    if (current > 0) return current === context + 1 && current > this.min;
    if (current < 0) return current === context - 1 && current < this.max;
    return false;
  }
  static isValidContext(current, context) {
    if (context === void 0) return false;
    if (typeof context !== "number") throw new Error(`Invalid context type passed to IntegerArbitrary (#1)`);
    if (context !== 0 && safeMathSign(current) !== safeMathSign(context)) throw new Error(`Invalid context value passed to IntegerArbitrary (#2)`);
    return true;
  }
};
var safeNumberIsInteger$5 = Number.isInteger;
function buildCompleteIntegerConstraints(constraints) {
  return {
    min: constraints.min !== void 0 ? constraints.min : -2147483648,
    max: constraints.max !== void 0 ? constraints.max : 2147483647
  };
}
function integer(constraints = {}) {
  const fullConstraints = buildCompleteIntegerConstraints(constraints);
  if (fullConstraints.min > fullConstraints.max) throw new Error("fc.integer maximum value should be equal or greater than the minimum one");
  if (!safeNumberIsInteger$5(fullConstraints.min)) throw new Error("fc.integer minimum value should be an integer");
  if (!safeNumberIsInteger$5(fullConstraints.max)) throw new Error("fc.integer maximum value should be an integer");
  return new IntegerArbitrary(fullConstraints.min, fullConstraints.max);
}
var depthContextCache = /* @__PURE__ */ new Map();
function getDepthContextFor(contextMeta) {
  if (contextMeta === void 0) return { depth: 0 };
  if (typeof contextMeta !== "string") return contextMeta;
  const cachedContext = safeMapGet(depthContextCache, contextMeta);
  if (cachedContext !== void 0) return cachedContext;
  const context = { depth: 0 };
  safeMapSet(depthContextCache, contextMeta, context);
  return context;
}
var NoopSlicedGenerator = class {
  constructor(arb, mrng, biasFactor) {
    this.arb = arb;
    this.mrng = mrng;
    this.biasFactor = biasFactor;
  }
  attemptExact() {
  }
  next() {
    return this.arb.generate(this.mrng, this.biasFactor);
  }
};
var safeMathMin$5 = Math.min;
var safeMathMax$2 = Math.max;
var SlicedBasedGenerator = class {
  constructor(arb, mrng, slices, biasFactor) {
    this.arb = arb;
    this.mrng = mrng;
    this.slices = slices;
    this.biasFactor = biasFactor;
    this.activeSliceIndex = 0;
    this.nextIndexInSlice = 0;
    this.lastIndexInSlice = -1;
  }
  attemptExact(targetLength) {
    if (targetLength !== 0 && this.mrng.nextInt(1, this.biasFactor) === 1) {
      const eligibleIndices = [];
      for (let index = 0; index !== this.slices.length; ++index) if (this.slices[index].length === targetLength) safePush(eligibleIndices, index);
      if (eligibleIndices.length === 0) return;
      this.activeSliceIndex = eligibleIndices[this.mrng.nextInt(0, eligibleIndices.length - 1)];
      this.nextIndexInSlice = 0;
      this.lastIndexInSlice = targetLength - 1;
    }
  }
  next() {
    if (this.nextIndexInSlice <= this.lastIndexInSlice) return new Value(this.slices[this.activeSliceIndex][this.nextIndexInSlice++], void 0);
    if (this.mrng.nextInt(1, this.biasFactor) !== 1) return this.arb.generate(this.mrng, this.biasFactor);
    this.activeSliceIndex = this.mrng.nextInt(0, this.slices.length - 1);
    const slice = this.slices[this.activeSliceIndex];
    if (this.mrng.nextInt(1, this.biasFactor) !== 1) {
      this.nextIndexInSlice = 1;
      this.lastIndexInSlice = slice.length - 1;
      return new Value(slice[0], void 0);
    }
    const rangeBoundaryA = this.mrng.nextInt(0, slice.length - 1);
    const rangeBoundaryB = this.mrng.nextInt(0, slice.length - 1);
    this.nextIndexInSlice = safeMathMin$5(rangeBoundaryA, rangeBoundaryB);
    this.lastIndexInSlice = safeMathMax$2(rangeBoundaryA, rangeBoundaryB);
    return new Value(slice[this.nextIndexInSlice++], void 0);
  }
};
function buildSlicedGenerator(arb, mrng, slices, biasFactor) {
  if (biasFactor === void 0 || slices.length === 0 || mrng.nextInt(1, biasFactor) !== 1) return new NoopSlicedGenerator(arb, mrng, biasFactor);
  return new SlicedBasedGenerator(arb, mrng, slices, biasFactor);
}
var safeMathFloor$4 = Math.floor;
var safeMathLog$1 = Math.log;
var safeArrayIsArray$2 = Array.isArray;
function biasedMaxLength(minLength, maxLength) {
  if (minLength === maxLength) return minLength;
  return minLength + safeMathFloor$4(safeMathLog$1(maxLength - minLength) / safeMathLog$1(2));
}
var ArrayArbitrary = class ArrayArbitrary2 extends Arbitrary {
  constructor(arb, minLength, maxGeneratedLength, maxLength, depthIdentifier, setBuilder, customSlices) {
    super();
    this.arb = arb;
    this.minLength = minLength;
    this.maxGeneratedLength = maxGeneratedLength;
    this.maxLength = maxLength;
    this.setBuilder = setBuilder;
    this.customSlices = customSlices;
    this.lengthArb = integer({
      min: minLength,
      max: maxGeneratedLength
    });
    this.depthContext = getDepthContextFor(depthIdentifier);
    this.cachedBiasedMaxLength = biasedMaxLength(minLength, maxGeneratedLength);
  }
  preFilter(tab) {
    if (this.setBuilder === void 0) return tab;
    const s = this.setBuilder();
    for (let index = 0; index !== tab.length; ++index) s.tryAdd(tab[index]);
    return s.getData();
  }
  static makeItCloneable(vs, shrinkables) {
    vs[cloneMethod] = () => {
      const cloned = [];
      for (let idx = 0; idx !== shrinkables.length; ++idx) safePush(cloned, shrinkables[idx].value);
      this.makeItCloneable(cloned, shrinkables);
      return cloned;
    };
    return vs;
  }
  generateNItemsNoDuplicates(setBuilder, N3, mrng, biasFactorItems) {
    let numSkippedInRow = 0;
    const s = setBuilder();
    const slicedGenerator = buildSlicedGenerator(this.arb, mrng, this.customSlices, biasFactorItems);
    while (s.size() < N3 && numSkippedInRow < this.maxGeneratedLength) {
      const current = slicedGenerator.next();
      if (s.tryAdd(current)) numSkippedInRow = 0;
      else numSkippedInRow += 1;
    }
    return s.getData();
  }
  safeGenerateNItemsNoDuplicates(setBuilder, N3, mrng, biasFactorItems) {
    const depthImpact = N3 - this.cachedBiasedMaxLength;
    if (depthImpact <= 0) return this.generateNItemsNoDuplicates(setBuilder, N3, mrng, biasFactorItems);
    this.depthContext.depth += depthImpact;
    try {
      return this.generateNItemsNoDuplicates(setBuilder, N3, mrng, biasFactorItems);
    } finally {
      this.depthContext.depth -= depthImpact;
    }
  }
  generateNItems(N3, mrng, biasFactorItems) {
    const items = [];
    const slicedGenerator = buildSlicedGenerator(this.arb, mrng, this.customSlices, biasFactorItems);
    slicedGenerator.attemptExact(N3);
    for (let index = 0; index !== N3; ++index) safePush(items, slicedGenerator.next());
    return items;
  }
  safeGenerateNItems(N3, mrng, biasFactorItems) {
    const depthImpact = N3 - this.cachedBiasedMaxLength;
    if (depthImpact <= 0) return this.generateNItems(N3, mrng, biasFactorItems);
    this.depthContext.depth += depthImpact;
    try {
      return this.generateNItems(N3, mrng, biasFactorItems);
    } finally {
      this.depthContext.depth -= depthImpact;
    }
  }
  wrapper(itemsRaw, shrunkOnce, itemsRawLengthContext, startIndex) {
    const items = shrunkOnce ? this.preFilter(itemsRaw) : itemsRaw;
    let cloneable = false;
    const vs = [];
    const itemsContexts = [];
    for (let idx = 0; idx !== items.length; ++idx) {
      const s = items[idx];
      cloneable = cloneable || s.hasToBeCloned;
      safePush(vs, s.value);
      safePush(itemsContexts, s.context);
    }
    if (cloneable) ArrayArbitrary2.makeItCloneable(vs, items);
    return new Value(vs, {
      shrunkOnce,
      lengthContext: itemsRaw.length === items.length && itemsRawLengthContext !== void 0 ? itemsRawLengthContext : void 0,
      itemsContexts,
      startIndex
    });
  }
  generate(mrng, biasFactor) {
    let targetSize;
    let biasFactorItems;
    if (biasFactor === void 0) targetSize = this.lengthArb.generate(mrng, void 0).value;
    else if (this.minLength === this.maxGeneratedLength) {
      targetSize = this.lengthArb.generate(mrng, void 0).value;
      biasFactorItems = biasFactor;
    } else if (mrng.nextInt(1, biasFactor) !== 1) targetSize = this.lengthArb.generate(mrng, void 0).value;
    else if (mrng.nextInt(1, biasFactor) !== 1) {
      targetSize = this.lengthArb.generate(mrng, void 0).value;
      biasFactorItems = biasFactor;
    } else {
      const maxBiasedLength = this.cachedBiasedMaxLength;
      targetSize = integer({
        min: this.minLength,
        max: maxBiasedLength
      }).generate(mrng, void 0).value;
      biasFactorItems = biasFactor;
    }
    const items = this.setBuilder !== void 0 ? this.safeGenerateNItemsNoDuplicates(this.setBuilder, targetSize, mrng, biasFactorItems) : this.safeGenerateNItems(targetSize, mrng, biasFactorItems);
    return this.wrapper(items, false, void 0, 0);
  }
  canShrinkWithoutContext(value) {
    if (!safeArrayIsArray$2(value) || this.minLength > value.length || value.length > this.maxLength) return false;
    for (let index = 0; index !== value.length; ++index) {
      if (!(index in value)) return false;
      if (!this.arb.canShrinkWithoutContext(value[index])) return false;
    }
    return this.preFilter(safeMap(value, (item) => new Value(item, void 0))).length === value.length;
  }
  shrinkItemByItem(value, safeContext, endIndex) {
    const shrinks = [];
    for (let index = safeContext.startIndex; index < endIndex; ++index) safePush(shrinks, makeLazy(() => this.arb.shrink(value[index], safeContext.itemsContexts[index]).map((v) => {
      const beforeCurrent = safeMap(safeSlice(value, 0, index), (v2, i) => new Value(cloneIfNeeded(v2), safeContext.itemsContexts[i]));
      const afterCurrent = safeMap(safeSlice(value, index + 1), (v2, i) => new Value(cloneIfNeeded(v2), safeContext.itemsContexts[i + index + 1]));
      return [
        [
          ...beforeCurrent,
          v,
          ...afterCurrent
        ],
        void 0,
        index
      ];
    })));
    return Stream.nil().join(...shrinks);
  }
  shrinkImpl(value, context) {
    if (value.length === 0) return Stream.nil();
    const safeContext = context !== void 0 ? context : {
      shrunkOnce: false,
      lengthContext: void 0,
      itemsContexts: [],
      startIndex: 0
    };
    return this.lengthArb.shrink(value.length, safeContext.lengthContext).drop(safeContext.shrunkOnce && safeContext.lengthContext === void 0 && value.length > this.minLength + 1 ? 1 : 0).map((lengthValue) => {
      const sliceStart = value.length - lengthValue.value;
      return [
        safeMap(safeSlice(value, sliceStart), (v, index) => new Value(cloneIfNeeded(v), safeContext.itemsContexts[index + sliceStart])),
        lengthValue.context,
        0
      ];
    }).join(makeLazy(() => value.length > this.minLength ? this.shrinkItemByItem(value, safeContext, 1) : this.shrinkItemByItem(value, safeContext, value.length))).join(value.length > this.minLength ? makeLazy(() => {
      const subContext = {
        shrunkOnce: false,
        lengthContext: void 0,
        itemsContexts: safeSlice(safeContext.itemsContexts, 1),
        startIndex: 0
      };
      return this.shrinkImpl(safeSlice(value, 1), subContext).filter((v) => this.minLength <= v[0].length + 1).map((v) => {
        return [
          [new Value(cloneIfNeeded(value[0]), safeContext.itemsContexts[0]), ...v[0]],
          void 0,
          0
        ];
      });
    }) : Stream.nil());
  }
  shrink(value, context) {
    return this.shrinkImpl(value, context).map((contextualValue) => this.wrapper(contextualValue[0], true, contextualValue[1], contextualValue[2]));
  }
};
var safeMathFloor$3 = Math.floor;
var safeMathMin$4 = Math.min;
var MaxLengthUpperBound = 2147483647;
var orderedSize = [
  "xsmall",
  "small",
  "medium",
  "large",
  "xlarge"
];
var orderedRelativeSize = [
  "-4",
  "-3",
  "-2",
  "-1",
  "=",
  "+1",
  "+2",
  "+3",
  "+4"
];
var DefaultSize = "small";
function maxLengthFromMinLength(minLength, size) {
  switch (size) {
    case "xsmall":
      return safeMathFloor$3(1.1 * minLength) + 1;
    case "small":
      return 2 * minLength + 10;
    case "medium":
      return 11 * minLength + 100;
    case "large":
      return 101 * minLength + 1e3;
    case "xlarge":
      return 1001 * minLength + 1e4;
    default:
      throw new Error(`Unable to compute lengths based on received size: ${size}`);
  }
}
function relativeSizeToSize(size, defaultSize) {
  const sizeInRelative = safeIndexOf(orderedRelativeSize, size);
  if (sizeInRelative === -1) return size;
  const defaultSizeInSize = safeIndexOf(orderedSize, defaultSize);
  if (defaultSizeInSize === -1) throw new Error(`Unable to offset size based on the unknown defaulted one: ${defaultSize}`);
  const resultingSizeInSize = defaultSizeInSize + sizeInRelative - 4;
  return resultingSizeInSize < 0 ? orderedSize[0] : resultingSizeInSize >= orderedSize.length ? orderedSize[orderedSize.length - 1] : orderedSize[resultingSizeInSize];
}
function maxGeneratedLengthFromSizeForArbitrary(size, minLength, maxLength, specifiedMaxLength) {
  const { baseSize: defaultSize = DefaultSize, defaultSizeToMaxWhenMaxSpecified } = readConfigureGlobal() || {};
  const definedSize = size !== void 0 ? size : specifiedMaxLength && defaultSizeToMaxWhenMaxSpecified ? "max" : defaultSize;
  if (definedSize === "max") return maxLength;
  const finalSize = relativeSizeToSize(definedSize, defaultSize);
  return safeMathMin$4(maxLengthFromMinLength(minLength, finalSize), maxLength);
}
function depthBiasFromSizeForArbitrary(depthSizeOrSize, specifiedMaxDepth) {
  if (typeof depthSizeOrSize === "number") return 1 / depthSizeOrSize;
  const { baseSize: defaultSize = DefaultSize, defaultSizeToMaxWhenMaxSpecified } = readConfigureGlobal() || {};
  const definedSize = depthSizeOrSize !== void 0 ? depthSizeOrSize : specifiedMaxDepth && defaultSizeToMaxWhenMaxSpecified ? "max" : defaultSize;
  if (definedSize === "max") return 0;
  switch (relativeSizeToSize(definedSize, defaultSize)) {
    case "xsmall":
      return 1;
    case "small":
      return 0.5;
    case "medium":
      return 0.25;
    case "large":
      return 0.125;
    case "xlarge":
      return 0.0625;
  }
}
function array(arb, constraints = {}) {
  const size = constraints.size;
  const minLength = constraints.minLength || 0;
  const maxLengthOrUnset = constraints.maxLength;
  const depthIdentifier = constraints.depthIdentifier;
  const maxLength = maxLengthOrUnset !== void 0 ? maxLengthOrUnset : MaxLengthUpperBound;
  return new ArrayArbitrary(arb, minLength, maxGeneratedLengthFromSizeForArbitrary(size, minLength, maxLength, maxLengthOrUnset !== void 0), maxLength, depthIdentifier, void 0, constraints.experimentalCustomSlices || []);
}
var safeObjectIs$5 = Object.is;
var FastConstantValuesLookup = class {
  constructor(values) {
    this.values = values;
    this.fastValues = new SSet(this.values);
    let hasMinusZero = false;
    let hasPlusZero = false;
    if (safeHas(this.fastValues, 0)) for (let idx = 0; idx !== this.values.length; ++idx) {
      const value = this.values[idx];
      hasMinusZero = hasMinusZero || safeObjectIs$5(value, -0);
      hasPlusZero = hasPlusZero || safeObjectIs$5(value, 0);
    }
    this.hasMinusZero = hasMinusZero;
    this.hasPlusZero = hasPlusZero;
  }
  has(value) {
    if (value === 0) {
      if (safeObjectIs$5(value, 0)) return this.hasPlusZero;
      return this.hasMinusZero;
    }
    return safeHas(this.fastValues, value);
  }
};
var ConstantArbitrary = class extends Arbitrary {
  constructor(values) {
    super();
    this.values = values;
  }
  generate(mrng, _biasFactor) {
    const idx = this.values.length === 1 ? 0 : mrng.nextInt(0, this.values.length - 1);
    const value = this.values[idx];
    if (!hasCloneMethod(value)) return new Value(value, idx);
    return new Value(value, idx, () => value[cloneMethod]());
  }
  canShrinkWithoutContext(value) {
    if (this.values.length === 1) return safeObjectIs$5(this.values[0], value);
    if (this.fastValues === void 0) this.fastValues = new FastConstantValuesLookup(this.values);
    return this.fastValues.has(value);
  }
  shrink(value, context) {
    if (context === 0 || safeObjectIs$5(value, this.values[0])) return Stream.nil();
    return Stream.of(new Value(this.values[0], 0));
  }
};
function constantFrom(...values) {
  if (values.length === 0) throw new Error("fc.constantFrom expects at least one parameter");
  return new ConstantArbitrary(values);
}
function constant(value) {
  return new ConstantArbitrary([value]);
}
var ContextImplem = class ContextImplem2 {
  constructor() {
    this.receivedLogs = [];
  }
  log(data) {
    this.receivedLogs.push(data);
  }
  size() {
    return this.receivedLogs.length;
  }
  toString() {
    return JSON.stringify({ logs: this.receivedLogs });
  }
  [cloneMethod]() {
    return new ContextImplem2();
  }
};
var safeNumberIsNaN$4 = Number.isNaN;
var safeNumberIsNaN$3 = Number.isNaN;
var safeNumberIsNaN$2 = Number.isNaN;
var safeObjectPrototype$1 = Object.prototype;
var safePositiveInfinity$7 = Number.POSITIVE_INFINITY;
var safeMaxSafeInteger$2 = Number.MAX_SAFE_INTEGER;
var safeNumberIsInteger$4 = Number.isInteger;
var safeMathFloor$2 = Math.floor;
var safeMathPow = Math.pow;
var safeMathMin$3 = Math.min;
var FrequencyArbitrary = class FrequencyArbitrary2 extends Arbitrary {
  static from(warbs, constraints, label) {
    if (warbs.length === 0) throw new Error(`${label} expects at least one weighted arbitrary`);
    let totalWeight = 0;
    for (let idx = 0; idx !== warbs.length; ++idx) {
      if (warbs[idx].arbitrary === void 0) throw new Error(`${label} expects arbitraries to be specified`);
      const currentWeight = warbs[idx].weight;
      totalWeight += currentWeight;
      if (!safeNumberIsInteger$4(currentWeight)) throw new Error(`${label} expects weights to be integer values`);
      if (currentWeight < 0) throw new Error(`${label} expects weights to be superior or equal to 0`);
    }
    if (totalWeight <= 0) throw new Error(`${label} expects the sum of weights to be strictly superior to 0`);
    const sanitizedConstraints = {
      depthBias: depthBiasFromSizeForArbitrary(constraints.depthSize, constraints.maxDepth !== void 0),
      maxDepth: constraints.maxDepth !== void 0 ? constraints.maxDepth : safePositiveInfinity$7,
      withCrossShrink: !!constraints.withCrossShrink
    };
    return new FrequencyArbitrary2(warbs, sanitizedConstraints, getDepthContextFor(constraints.depthIdentifier));
  }
  constructor(warbs, constraints, context) {
    super();
    this.warbs = warbs;
    this.constraints = constraints;
    this.context = context;
    let currentWeight = 0;
    this.cumulatedWeights = [];
    for (let idx = 0; idx !== warbs.length; ++idx) {
      currentWeight += warbs[idx].weight;
      safePush(this.cumulatedWeights, currentWeight);
    }
    this.totalWeight = currentWeight;
  }
  generate(mrng, biasFactor) {
    if (this.mustGenerateFirst()) return this.safeGenerateForIndex(mrng, 0, biasFactor);
    const selected = mrng.nextInt(this.computeNegDepthBenefit(), this.totalWeight - 1);
    for (let idx = 0; idx !== this.cumulatedWeights.length; ++idx) if (selected < this.cumulatedWeights[idx]) return this.safeGenerateForIndex(mrng, idx, biasFactor);
    throw new Error(`Unable to generate from fc.frequency`);
  }
  canShrinkWithoutContext(value) {
    return this.canShrinkWithoutContextIndex(value) !== -1;
  }
  shrink(value, context) {
    if (context !== void 0) {
      const safeContext = context;
      const selectedIndex = safeContext.selectedIndex;
      const originalBias = safeContext.originalBias;
      const originalShrinks = this.warbs[selectedIndex].arbitrary.shrink(value, safeContext.originalContext).map((v) => this.mapIntoValue(selectedIndex, v, null, originalBias));
      if (safeContext.clonedMrngForFallbackFirst !== null) {
        if (safeContext.cachedGeneratedForFirst === void 0) safeContext.cachedGeneratedForFirst = this.safeGenerateForIndex(safeContext.clonedMrngForFallbackFirst, 0, originalBias);
        const valueFromFirst = safeContext.cachedGeneratedForFirst;
        return Stream.of(valueFromFirst).join(originalShrinks);
      }
      return originalShrinks;
    }
    const potentialSelectedIndex = this.canShrinkWithoutContextIndex(value);
    if (potentialSelectedIndex === -1) return Stream.nil();
    return this.defaultShrinkForFirst(potentialSelectedIndex).join(this.warbs[potentialSelectedIndex].arbitrary.shrink(value, void 0).map((v) => this.mapIntoValue(potentialSelectedIndex, v, null, void 0)));
  }
  /** Generate shrink values for first arbitrary when no context and no value was provided */
  defaultShrinkForFirst(selectedIndex) {
    ++this.context.depth;
    try {
      if (!this.mustFallbackToFirstInShrink(selectedIndex) || this.warbs[0].fallbackValue === void 0) return Stream.nil();
    } finally {
      --this.context.depth;
    }
    const rawShrinkValue = new Value(this.warbs[0].fallbackValue.default, void 0);
    return Stream.of(this.mapIntoValue(0, rawShrinkValue, null, void 0));
  }
  /** Extract the index of the generator that would have been able to gennrate the value */
  canShrinkWithoutContextIndex(value) {
    if (this.mustGenerateFirst()) return this.warbs[0].arbitrary.canShrinkWithoutContext(value) ? 0 : -1;
    try {
      ++this.context.depth;
      for (let idx = 0; idx !== this.warbs.length; ++idx) {
        const warb = this.warbs[idx];
        if (warb.weight !== 0 && warb.arbitrary.canShrinkWithoutContext(value)) return idx;
      }
      return -1;
    } finally {
      --this.context.depth;
    }
  }
  /** Map the output of one of the children with the context of frequency */
  mapIntoValue(idx, value, clonedMrngForFallbackFirst, biasFactor) {
    const context = {
      selectedIndex: idx,
      originalBias: biasFactor,
      originalContext: value.context,
      clonedMrngForFallbackFirst
    };
    return new Value(value.value, context);
  }
  /** Generate using Arbitrary at index idx and safely handle depth context */
  safeGenerateForIndex(mrng, idx, biasFactor) {
    ++this.context.depth;
    try {
      const value = this.warbs[idx].arbitrary.generate(mrng, biasFactor);
      const clonedMrngForFallbackFirst = this.mustFallbackToFirstInShrink(idx) ? mrng.clone() : null;
      return this.mapIntoValue(idx, value, clonedMrngForFallbackFirst, biasFactor);
    } finally {
      --this.context.depth;
    }
  }
  /** Check if generating a value based on the first arbitrary is compulsory */
  mustGenerateFirst() {
    return this.constraints.maxDepth <= this.context.depth;
  }
  /** Check if fallback on first arbitrary during shrinking is required */
  mustFallbackToFirstInShrink(idx) {
    return idx !== 0 && this.constraints.withCrossShrink && this.warbs[0].weight !== 0;
  }
  /** Compute the benefit for the current depth */
  computeNegDepthBenefit() {
    const depthBias = this.constraints.depthBias;
    if (depthBias <= 0 || this.warbs[0].weight === 0) return 0;
    const depthBenefit = safeMathFloor$2(safeMathPow(1 + depthBias, this.context.depth)) - 1;
    return -safeMathMin$3(this.totalWeight * depthBenefit, safeMaxSafeInteger$2) || 0;
  }
};
function isOneOfContraints(param) {
  return param !== null && param !== void 0 && typeof param === "object" && !("generate" in param) && !("arbitrary" in param) && !("weight" in param);
}
function toWeightedArbitrary(maybeWeightedArbitrary) {
  if (isArbitrary(maybeWeightedArbitrary)) return {
    arbitrary: maybeWeightedArbitrary,
    weight: 1
  };
  return maybeWeightedArbitrary;
}
function oneof(...args) {
  const constraints = args[0];
  if (isOneOfContraints(constraints)) {
    const weightedArbs2 = safeMap(safeSlice(args, 1), toWeightedArbitrary);
    return FrequencyArbitrary.from(weightedArbs2, constraints, "fc.oneof");
  }
  const weightedArbs = safeMap(args, toWeightedArbitrary);
  return FrequencyArbitrary.from(weightedArbs, {}, "fc.oneof");
}
var safeNumberIsInteger$3 = Number.isInteger;
function nat(arg) {
  const max = typeof arg === "number" ? arg : arg && arg.max !== void 0 ? arg.max : 2147483647;
  if (max < 0) throw new Error("fc.nat value should be greater than or equal to 0");
  if (!safeNumberIsInteger$3(max)) throw new Error("fc.nat maximum value should be an integer");
  return new IntegerArbitrary(0, max);
}
var safeObjectIs$2 = Object.is;
function buildDichotomyEntries(entries) {
  let currentFrom = 0;
  const dichotomyEntries = [];
  for (const entry of entries) {
    const from = currentFrom;
    currentFrom = from + entry.num;
    const to = currentFrom - 1;
    dichotomyEntries.push({
      from,
      to,
      entry
    });
  }
  return dichotomyEntries;
}
function findDichotomyEntry(dichotomyEntries, choiceIndex) {
  let min = 0;
  let max = dichotomyEntries.length;
  while (max - min > 1) {
    const mid = ~~((min + max) / 2);
    if (choiceIndex < dichotomyEntries[mid].from) max = mid;
    else min = mid;
  }
  return dichotomyEntries[min];
}
function indexToMappedConstantMapperFor(entries) {
  const dichotomyEntries = buildDichotomyEntries(entries);
  return function indexToMappedConstantMapper(choiceIndex) {
    const dichotomyEntry = findDichotomyEntry(dichotomyEntries, choiceIndex);
    return dichotomyEntry.entry.build(choiceIndex - dichotomyEntry.from);
  };
}
function buildReverseMapping(entries) {
  const reverseMapping = {
    mapping: new SMap$2(),
    negativeZeroIndex: void 0
  };
  let choiceIndex = 0;
  for (let entryIdx = 0; entryIdx !== entries.length; ++entryIdx) {
    const entry = entries[entryIdx];
    for (let idxInEntry = 0; idxInEntry !== entry.num; ++idxInEntry) {
      const value = entry.build(idxInEntry);
      if (value === 0 && 1 / value === SNumber.NEGATIVE_INFINITY) reverseMapping.negativeZeroIndex = choiceIndex;
      else safeMapSet(reverseMapping.mapping, value, choiceIndex);
      ++choiceIndex;
    }
  }
  return reverseMapping;
}
function indexToMappedConstantUnmapperFor(entries) {
  let reverseMapping = null;
  return function indexToMappedConstantUnmapper(value) {
    if (reverseMapping === null) reverseMapping = buildReverseMapping(entries);
    const choiceIndex = safeObjectIs$2(value, -0) ? reverseMapping.negativeZeroIndex : safeMapGet(reverseMapping.mapping, value);
    if (choiceIndex === void 0) throw new SError("Unknown value encountered cannot be built using this mapToConstant");
    return choiceIndex;
  };
}
function computeNumChoices(options) {
  if (options.length === 0) throw new SError(`fc.mapToConstant expects at least one option`);
  let numChoices = 0;
  for (let idx = 0; idx !== options.length; ++idx) {
    if (options[idx].num < 0) throw new SError(`fc.mapToConstant expects all options to have a number of entries greater or equal to zero`);
    numChoices += options[idx].num;
  }
  if (numChoices === 0) throw new SError(`fc.mapToConstant expects at least one choice among options`);
  return numChoices;
}
function mapToConstant(...entries) {
  return nat({ max: computeNumChoices(entries) - 1 }).map(indexToMappedConstantMapperFor(entries), indexToMappedConstantUnmapperFor(entries));
}
function tokenizeString(patternsArb, value, minLength, maxLength) {
  if (value.length === 0) {
    if (minLength > 0) return;
    return [];
  }
  if (maxLength <= 0) return;
  const stack = [{
    endIndexChunks: 0,
    nextStartIndex: 1,
    chunks: []
  }];
  while (stack.length > 0) {
    const last = safePop$1(stack);
    for (let index = last.nextStartIndex; index <= value.length; ++index) {
      const chunk = safeSubstring(value, last.endIndexChunks, index);
      if (patternsArb.canShrinkWithoutContext(chunk)) {
        const newChunks = [...last.chunks, chunk];
        if (index === value.length) {
          if (newChunks.length < minLength) break;
          return newChunks;
        }
        safePush(stack, {
          endIndexChunks: last.endIndexChunks,
          nextStartIndex: index + 1,
          chunks: last.chunks
        });
        if (newChunks.length < maxLength) safePush(stack, {
          endIndexChunks: index,
          nextStartIndex: index + 1,
          chunks: newChunks
        });
        break;
      }
    }
  }
}
function patternsToStringMapper(tab) {
  return safeJoin(tab, "");
}
function minLengthFrom(constraints) {
  return constraints.minLength !== void 0 ? constraints.minLength : 0;
}
function maxLengthFrom(constraints) {
  return constraints.maxLength !== void 0 ? constraints.maxLength : MaxLengthUpperBound;
}
function patternsToStringUnmapperIsValidLength(tokens, constraints) {
  return minLengthFrom(constraints) <= tokens.length && tokens.length <= maxLengthFrom(constraints);
}
function patternsToStringUnmapperFor(patternsArb, constraints) {
  return function patternsToStringUnmapper(value) {
    if (typeof value !== "string") throw new SError("Unsupported value");
    const tokens = tokenizeString(patternsArb, value, minLengthFrom(constraints), maxLengthFrom(constraints));
    if (tokens === void 0) throw new SError("Unable to unmap received string");
    return tokens;
  };
}
var dangerousStrings = [
  "__defineGetter__",
  "__defineSetter__",
  "__lookupGetter__",
  "__lookupSetter__",
  "__proto__",
  "constructor",
  "hasOwnProperty",
  "isPrototypeOf",
  "propertyIsEnumerable",
  "toLocaleString",
  "toString",
  "valueOf",
  "apply",
  "arguments",
  "bind",
  "call",
  "caller",
  "length",
  "name",
  "prototype",
  "key",
  "ref"
];
var slicesPerArbitrary = /* @__PURE__ */ new WeakMap();
function createSlicesForStringNoConstraints(charArbitrary) {
  const slicesForString = [];
  for (const dangerous of dangerousStrings) {
    const candidate = tokenizeString(charArbitrary, dangerous, 0, MaxLengthUpperBound);
    if (candidate !== void 0) safePush(slicesForString, candidate);
  }
  return slicesForString;
}
function createSlicesForString(charArbitrary, constraints) {
  let slices = safeGet(slicesPerArbitrary, charArbitrary);
  if (slices === void 0) {
    slices = createSlicesForStringNoConstraints(charArbitrary);
    safeSet(slicesPerArbitrary, charArbitrary, slices);
  }
  const slicesForConstraints = [];
  for (const slice of slices) if (patternsToStringUnmapperIsValidLength(slice, constraints)) safePush(slicesForConstraints, slice);
  return slicesForConstraints;
}
var asciiAlphabetRanges = [[0, 127]];
var fullAlphabetRanges = [[0, 55295], [57344, 1114111]];
var autonomousGraphemeRanges = [
  [32, 126],
  [160, 172],
  [174, 767],
  [880, 887],
  [890, 895],
  [900, 906],
  [908],
  [910, 929],
  [931, 1154],
  [1162, 1327],
  [1329, 1366],
  [1369, 1418],
  [1421, 1423],
  [1470],
  [1472],
  [1475],
  [1478],
  [1488, 1514],
  [1519, 1524],
  [1542, 1551],
  [1563],
  [1565, 1610],
  [1632, 1647],
  [1649, 1749],
  [1758],
  [1765, 1766],
  [1769],
  [1774, 1805],
  [1808],
  [1810, 1839],
  [1869, 1957],
  [1969],
  [1984, 2026],
  [2036, 2042],
  [2046, 2069],
  [2074],
  [2084],
  [2088],
  [2096, 2110],
  [2112, 2136],
  [2142],
  [2144, 2154],
  [2160, 2190],
  [2208, 2249],
  [2308, 2361],
  [2365],
  [2384],
  [2392, 2401],
  [2404, 2432],
  [2437, 2444],
  [2447, 2448],
  [2451, 2472],
  [2474, 2480],
  [2482],
  [2486, 2489],
  [2493],
  [2510],
  [2524, 2525],
  [2527, 2529],
  [2534, 2557],
  [2565, 2570],
  [2575, 2576],
  [2579, 2600],
  [2602, 2608],
  [2610, 2611],
  [2613, 2614],
  [2616, 2617],
  [2649, 2652],
  [2654],
  [2662, 2671],
  [2674, 2676],
  [2678],
  [2693, 2701],
  [2703, 2705],
  [2707, 2728],
  [2730, 2736],
  [2738, 2739],
  [2741, 2745],
  [2749],
  [2768],
  [2784, 2785],
  [2790, 2801],
  [2809],
  [2821, 2828],
  [2831, 2832],
  [2835, 2856],
  [2858, 2864],
  [2866, 2867],
  [2869, 2873],
  [2877],
  [2908, 2909],
  [2911, 2913],
  [2918, 2935],
  [2947],
  [2949, 2954],
  [2958, 2960],
  [2962, 2965],
  [2969, 2970],
  [2972],
  [2974, 2975],
  [2979, 2980],
  [2984, 2986],
  [2990, 3001],
  [3024],
  [3046, 3066],
  [3077, 3084],
  [3086, 3088],
  [3090, 3112],
  [3114, 3129],
  [3133],
  [3160, 3162],
  [3165],
  [3168, 3169],
  [3174, 3183],
  [3191, 3200],
  [3204, 3212],
  [3214, 3216],
  [3218, 3240],
  [3242, 3251],
  [3253, 3257],
  [3261],
  [3293, 3294],
  [3296, 3297],
  [3302, 3311],
  [3313, 3314],
  [3332, 3340],
  [3342, 3344],
  [3346, 3386],
  [3389],
  [3407],
  [3412, 3414],
  [3416, 3425],
  [3430, 3455],
  [3461, 3478],
  [3482, 3505],
  [3507, 3515],
  [3517],
  [3520, 3526],
  [3558, 3567],
  [3572],
  [3585, 3632],
  [3634],
  [3647, 3654],
  [3663, 3675],
  [3713, 3714],
  [3716],
  [3718, 3722],
  [3724, 3747],
  [3749],
  [3751, 3760],
  [3762],
  [3773],
  [3776, 3780],
  [3782],
  [3792, 3801],
  [3804, 3807],
  [3840, 3863],
  [3866, 3892],
  [3894],
  [3896],
  [3898, 3901],
  [3904, 3911],
  [3913, 3948],
  [3973],
  [3976, 3980],
  [4030, 4037],
  [4039, 4044],
  [4046, 4058],
  [4096, 4138],
  [4159, 4181],
  [4186, 4189],
  [4193],
  [4197, 4198],
  [4206, 4208],
  [4213, 4225],
  [4238],
  [4240, 4249],
  [4254, 4293],
  [4295],
  [4301],
  [4304, 4351],
  [4608, 4680],
  [4682, 4685],
  [4688, 4694],
  [4696],
  [4698, 4701],
  [4704, 4744],
  [4746, 4749],
  [4752, 4784],
  [4786, 4789],
  [4792, 4798],
  [4800],
  [4802, 4805],
  [4808, 4822],
  [4824, 4880],
  [4882, 4885],
  [4888, 4954],
  [4960, 4988],
  [4992, 5017],
  [5024, 5109],
  [5112, 5117],
  [5120, 5788],
  [5792, 5880],
  [5888, 5905],
  [5919, 5937],
  [5941, 5942],
  [5952, 5969],
  [5984, 5996],
  [5998, 6e3],
  [6016, 6067],
  [6100, 6108],
  [6112, 6121],
  [6128, 6137],
  [6144, 6154],
  [6160, 6169],
  [6176, 6264],
  [6272, 6276],
  [6279, 6312],
  [6314],
  [6320, 6389],
  [6400, 6430],
  [6464],
  [6468, 6509],
  [6512, 6516],
  [6528, 6571],
  [6576, 6601],
  [6608, 6618],
  [6622, 6678],
  [6686, 6740],
  [6784, 6793],
  [6800, 6809],
  [6816, 6829],
  [6917, 6963],
  [6981, 6988],
  [6992, 7018],
  [7028, 7038],
  [7043, 7072],
  [7086, 7141],
  [7164, 7203],
  [7227, 7241],
  [7245, 7304],
  [7312, 7354],
  [7357, 7367],
  [7379],
  [7401, 7404],
  [7406, 7411],
  [7413, 7414],
  [7418],
  [7424, 7615],
  [7680, 7957],
  [7960, 7965],
  [7968, 8005],
  [8008, 8013],
  [8016, 8023],
  [8025],
  [8027],
  [8029],
  [8031, 8061],
  [8064, 8116],
  [8118, 8132],
  [8134, 8147],
  [8150, 8155],
  [8157, 8175],
  [8178, 8180],
  [8182, 8190],
  [8192, 8202],
  [8208, 8233],
  [8239, 8287],
  [8304, 8305],
  [8308, 8334],
  [8336, 8348],
  [8352, 8384],
  [8448, 8587],
  [8592, 9254],
  [9280, 9290],
  [9312, 11123],
  [11126, 11157],
  [11159, 11502],
  [11506, 11507],
  [11513, 11557],
  [11559],
  [11565],
  [11568, 11623],
  [11631, 11632],
  [11648, 11670],
  [11680, 11686],
  [11688, 11694],
  [11696, 11702],
  [11704, 11710],
  [11712, 11718],
  [11720, 11726],
  [11728, 11734],
  [11736, 11742],
  [11776, 11869],
  [11904, 11929],
  [11931, 12019],
  [12032, 12245],
  [12272, 12329],
  [12336, 12351],
  [12353, 12438],
  [12443, 12543],
  [12549, 12591],
  [12593, 12686],
  [12688, 12771],
  [12783, 12830],
  [12832, 13312],
  [19903, 19968],
  [40959, 42124],
  [42128, 42182],
  [42192, 42539],
  [42560, 42606],
  [42611],
  [42622, 42653],
  [42656, 42735],
  [42738, 42743],
  [42752, 42954],
  [42960, 42961],
  [42963],
  [42965, 42969],
  [42994, 43009],
  [43011, 43013],
  [43015, 43018],
  [43020, 43042],
  [43048, 43051],
  [43056, 43065],
  [43072, 43127],
  [43138, 43187],
  [43214, 43225],
  [43250, 43262],
  [43264, 43301],
  [43310, 43334],
  [43359],
  [43396, 43442],
  [43457, 43469],
  [43471, 43481],
  [43486, 43492],
  [43494, 43518],
  [43520, 43560],
  [43584, 43586],
  [43588, 43595],
  [43600, 43609],
  [43612, 43642],
  [43646, 43695],
  [43697],
  [43701, 43702],
  [43705, 43709],
  [43712],
  [43714],
  [43739, 43754],
  [43760, 43764],
  [43777, 43782],
  [43785, 43790],
  [43793, 43798],
  [43808, 43814],
  [43816, 43822],
  [43824, 43883],
  [43888, 44002],
  [44011],
  [44016, 44025],
  [44032],
  [55203],
  [63744, 64109],
  [64112, 64217],
  [64256, 64262],
  [64275, 64279],
  [64285],
  [64287, 64310],
  [64312, 64316],
  [64318],
  [64320, 64321],
  [64323, 64324],
  [64326, 64450],
  [64467, 64911],
  [64914, 64967],
  [64975],
  [65008, 65023],
  [65040, 65049],
  [65072, 65106],
  [65108, 65126],
  [65128, 65131],
  [65136, 65140],
  [65142, 65276],
  [65281, 65437],
  [65440, 65470],
  [65474, 65479],
  [65482, 65487],
  [65490, 65495],
  [65498, 65500],
  [65504, 65510],
  [65512, 65518],
  [65532, 65533],
  [65536, 65547],
  [65549, 65574],
  [65576, 65594],
  [65596, 65597],
  [65599, 65613],
  [65616, 65629],
  [65664, 65786],
  [65792, 65794],
  [65799, 65843],
  [65847, 65934],
  [65936, 65948],
  [65952],
  [66e3, 66044],
  [66176, 66204],
  [66208, 66256],
  [66273, 66299],
  [66304, 66339],
  [66349, 66378],
  [66384, 66421],
  [66432, 66461],
  [66463, 66499],
  [66504, 66517],
  [66560, 66717],
  [66720, 66729],
  [66736, 66771],
  [66776, 66811],
  [66816, 66855],
  [66864, 66915],
  [66927, 66938],
  [66940, 66954],
  [66956, 66962],
  [66964, 66965],
  [66967, 66977],
  [66979, 66993],
  [66995, 67001],
  [67003, 67004],
  [67072, 67382],
  [67392, 67413],
  [67424, 67431],
  [67456, 67461],
  [67463, 67504],
  [67506, 67514],
  [67584, 67589],
  [67592],
  [67594, 67637],
  [67639, 67640],
  [67644],
  [67647, 67669],
  [67671, 67742],
  [67751, 67759],
  [67808, 67826],
  [67828, 67829],
  [67835, 67867],
  [67871, 67897],
  [67903],
  [67968, 68023],
  [68028, 68047],
  [68050, 68096],
  [68112, 68115],
  [68117, 68119],
  [68121, 68149],
  [68160, 68168],
  [68176, 68184],
  [68192, 68255],
  [68288, 68324],
  [68331, 68342],
  [68352, 68405],
  [68409, 68437],
  [68440, 68466],
  [68472, 68497],
  [68505, 68508],
  [68521, 68527],
  [68608, 68680],
  [68736, 68786],
  [68800, 68850],
  [68858, 68899],
  [68912, 68921],
  [69216, 69246],
  [69248, 69289],
  [69293],
  [69296, 69297],
  [69376, 69415],
  [69424, 69445],
  [69457, 69465],
  [69488, 69505],
  [69510, 69513],
  [69552, 69579],
  [69600, 69622],
  [69635, 69687],
  [69703, 69709],
  [69714, 69743],
  [69745, 69746],
  [69749],
  [69763, 69807],
  [69819, 69820],
  [69822, 69825],
  [69840, 69864],
  [69872, 69881],
  [69891, 69926],
  [69942, 69956],
  [69959],
  [69968, 70002],
  [70004, 70006],
  [70019, 70066],
  [70081],
  [70084, 70088],
  [70093],
  [70096, 70111],
  [70113, 70132],
  [70144, 70161],
  [70163, 70187],
  [70200, 70205],
  [70207, 70208],
  [70272, 70278],
  [70280],
  [70282, 70285],
  [70287, 70301],
  [70303, 70313],
  [70320, 70366],
  [70384, 70393],
  [70405, 70412],
  [70415, 70416],
  [70419, 70440],
  [70442, 70448],
  [70450, 70451],
  [70453, 70457],
  [70461],
  [70480],
  [70493, 70497],
  [70656, 70708],
  [70727, 70747],
  [70749],
  [70751, 70753],
  [70784, 70831],
  [70852, 70855],
  [70864, 70873],
  [71040, 71086],
  [71105, 71131],
  [71168, 71215],
  [71233, 71236],
  [71248, 71257],
  [71264, 71276],
  [71296, 71338],
  [71352, 71353],
  [71360, 71369],
  [71424, 71450],
  [71472, 71494],
  [71680, 71723],
  [71739],
  [71840, 71922],
  [71935, 71942],
  [71945],
  [71948, 71955],
  [71957, 71958],
  [71960, 71983],
  [72004, 72006],
  [72016, 72025],
  [72096, 72103],
  [72106, 72144],
  [72161, 72163],
  [72192],
  [72203, 72242],
  [72255, 72262],
  [72272],
  [72284, 72323],
  [72346, 72354],
  [72368, 72440],
  [72448, 72457],
  [72704, 72712],
  [72714, 72750],
  [72768, 72773],
  [72784, 72812],
  [72816, 72847],
  [72960, 72966],
  [72968, 72969],
  [72971, 73008],
  [73040, 73049],
  [73056, 73061],
  [73063, 73064],
  [73066, 73097],
  [73112],
  [73120, 73129],
  [73440, 73458],
  [73463, 73464],
  [73476, 73488],
  [73490, 73523],
  [73539, 73561],
  [73648],
  [73664, 73713],
  [73727, 74649],
  [74752, 74862],
  [74864, 74868],
  [74880, 75075],
  [77712, 77810],
  [77824, 78895],
  [78913, 78918],
  [82944, 83526],
  [92160, 92728],
  [92736, 92766],
  [92768, 92777],
  [92782, 92862],
  [92864, 92873],
  [92880, 92909],
  [92917],
  [92928, 92975],
  [92983, 92997],
  [93008, 93017],
  [93019, 93025],
  [93027, 93047],
  [93053, 93071],
  [93760, 93850],
  [93952, 94026],
  [94032],
  [94099, 94111],
  [94176, 94179],
  [94208],
  [100343],
  [100352, 101589],
  [101632],
  [101640],
  [110576, 110579],
  [110581, 110587],
  [110589, 110590],
  [110592, 110882],
  [110898],
  [110928, 110930],
  [110933],
  [110948, 110951],
  [110960, 111355],
  [113664, 113770],
  [113776, 113788],
  [113792, 113800],
  [113808, 113817],
  [113820],
  [113823],
  [118608, 118723],
  [118784, 119029],
  [119040, 119078],
  [119081, 119140],
  [119146, 119148],
  [119171, 119172],
  [119180, 119209],
  [119214, 119274],
  [119296, 119361],
  [119365],
  [119488, 119507],
  [119520, 119539],
  [119552, 119638],
  [119648, 119672],
  [119808, 119892],
  [119894, 119964],
  [119966, 119967],
  [119970],
  [119973, 119974],
  [119977, 119980],
  [119982, 119993],
  [119995],
  [119997, 120003],
  [120005, 120069],
  [120071, 120074],
  [120077, 120084],
  [120086, 120092],
  [120094, 120121],
  [120123, 120126],
  [120128, 120132],
  [120134],
  [120138, 120144],
  [120146, 120485],
  [120488, 120779],
  [120782, 121343],
  [121399, 121402],
  [121453, 121460],
  [121462, 121475],
  [121477, 121483],
  [122624, 122654],
  [122661, 122666],
  [122928, 122989],
  [123136, 123180],
  [123191, 123197],
  [123200, 123209],
  [123214, 123215],
  [123536, 123565],
  [123584, 123627],
  [123632, 123641],
  [123647],
  [124112, 124139],
  [124144, 124153],
  [124896, 124902],
  [124904, 124907],
  [124909, 124910],
  [124912, 124926],
  [124928, 125124],
  [125127, 125135],
  [125184, 125251],
  [125259],
  [125264, 125273],
  [125278, 125279],
  [126065, 126132],
  [126209, 126269],
  [126464, 126467],
  [126469, 126495],
  [126497, 126498],
  [126500],
  [126503],
  [126505, 126514],
  [126516, 126519],
  [126521],
  [126523],
  [126530],
  [126535],
  [126537],
  [126539],
  [126541, 126543],
  [126545, 126546],
  [126548],
  [126551],
  [126553],
  [126555],
  [126557],
  [126559],
  [126561, 126562],
  [126564],
  [126567, 126570],
  [126572, 126578],
  [126580, 126583],
  [126585, 126588],
  [126590],
  [126592, 126601],
  [126603, 126619],
  [126625, 126627],
  [126629, 126633],
  [126635, 126651],
  [126704, 126705],
  [126976, 127019],
  [127024, 127123],
  [127136, 127150],
  [127153, 127167],
  [127169, 127183],
  [127185, 127221],
  [127232, 127405],
  [127488, 127490],
  [127504, 127547],
  [127552, 127560],
  [127568, 127569],
  [127584, 127589],
  [127744, 127994],
  [128e3, 128727],
  [128732, 128748],
  [128752, 128764],
  [128768, 128886],
  [128891, 128985],
  [128992, 129003],
  [129008],
  [129024, 129035],
  [129040, 129095],
  [129104, 129113],
  [129120, 129159],
  [129168, 129197],
  [129200, 129201],
  [129280, 129619],
  [129632, 129645],
  [129648, 129660],
  [129664, 129672],
  [129680, 129725],
  [129727, 129733],
  [129742, 129755],
  [129760, 129768],
  [129776, 129784],
  [129792, 129938],
  [129940, 129994],
  [130032, 130041],
  [131072],
  [173791],
  [173824],
  [177977],
  [177984],
  [178205],
  [178208],
  [183969],
  [183984],
  [191456],
  [191472],
  [192093],
  [194560, 195101],
  [196608],
  [201546],
  [201552],
  [205743]
];
var autonomousDecomposableGraphemeRanges = [
  [192, 197],
  [199, 207],
  [209, 214],
  [217, 221],
  [224, 229],
  [231, 239],
  [241, 246],
  [249, 253],
  [255, 271],
  [274, 293],
  [296, 304],
  [308, 311],
  [313, 318],
  [323, 328],
  [332, 337],
  [340, 357],
  [360, 382],
  [416, 417],
  [431, 432],
  [461, 476],
  [478, 483],
  [486, 496],
  [500, 501],
  [504, 539],
  [542, 543],
  [550, 563],
  [901, 902],
  [904, 906],
  [908],
  [910, 912],
  [938, 944],
  [970, 974],
  [979, 980],
  [1024, 1025],
  [1027],
  [1031],
  [1036, 1038],
  [1049],
  [1081],
  [1104, 1105],
  [1107],
  [1111],
  [1116, 1118],
  [1142, 1143],
  [1217, 1218],
  [1232, 1235],
  [1238, 1239],
  [1242, 1247],
  [1250, 1255],
  [1258, 1269],
  [1272, 1273],
  [1570, 1574],
  [1728],
  [1730],
  [1747],
  [2345],
  [2353],
  [2356],
  [2392, 2399],
  [2524, 2525],
  [2527],
  [2611],
  [2614],
  [2649, 2651],
  [2654],
  [2908, 2909],
  [2964],
  [3907],
  [3917],
  [3922],
  [3927],
  [3932],
  [3945],
  [4134],
  [6918],
  [6920],
  [6922],
  [6924],
  [6926],
  [6930],
  [7680, 7833],
  [7835],
  [7840, 7929],
  [7936, 7957],
  [7960, 7965],
  [7968, 8005],
  [8008, 8013],
  [8016, 8023],
  [8025],
  [8027],
  [8029],
  [8031, 8048],
  [8050],
  [8052],
  [8054],
  [8056],
  [8058],
  [8060],
  [8064, 8116],
  [8118, 8122],
  [8124],
  [8129, 8132],
  [8134, 8136],
  [8138],
  [8140, 8146],
  [8150, 8154],
  [8157, 8162],
  [8164, 8170],
  [8172, 8173],
  [8178, 8180],
  [8182, 8184],
  [8186],
  [8188],
  [8602, 8603],
  [8622],
  [8653, 8655],
  [8708],
  [8713],
  [8716],
  [8740],
  [8742],
  [8769],
  [8772],
  [8775],
  [8777],
  [8800],
  [8802],
  [8813, 8817],
  [8820, 8821],
  [8824, 8825],
  [8832, 8833],
  [8836, 8837],
  [8840, 8841],
  [8876, 8879],
  [8928, 8931],
  [8938, 8941],
  [10972],
  [12364],
  [12366],
  [12368],
  [12370],
  [12372],
  [12374],
  [12376],
  [12378],
  [12380],
  [12382],
  [12384],
  [12386],
  [12389],
  [12391],
  [12393],
  [12400, 12401],
  [12403, 12404],
  [12406, 12407],
  [12409, 12410],
  [12412, 12413],
  [12436],
  [12446],
  [12460],
  [12462],
  [12464],
  [12466],
  [12468],
  [12470],
  [12472],
  [12474],
  [12476],
  [12478],
  [12480],
  [12482],
  [12485],
  [12487],
  [12489],
  [12496, 12497],
  [12499, 12500],
  [12502, 12503],
  [12505, 12506],
  [12508, 12509],
  [12532],
  [12535, 12538],
  [12542],
  [44032],
  [55203],
  [64285],
  [64287],
  [64298, 64310],
  [64312, 64316],
  [64318],
  [64320, 64321],
  [64323, 64324],
  [64326, 64334],
  [69786],
  [69788],
  [69803],
  [119134, 119140],
  [119227, 119232]
];
var safeStringFromCodePoint$3 = String.fromCodePoint;
var safeMathMin$2 = Math.min;
var safeMathMax$1 = Math.max;
function convertGraphemeRangeToMapToConstantEntry(range) {
  if (range.length === 1) {
    const codePointString = safeStringFromCodePoint$3(range[0]);
    return {
      num: 1,
      build: () => codePointString
    };
  }
  const rangeStart = range[0];
  return {
    num: range[1] - range[0] + 1,
    build: (idInGroup) => safeStringFromCodePoint$3(rangeStart + idInGroup)
  };
}
function intersectGraphemeRanges(rangesA, rangesB) {
  const mergedRanges = [];
  let cursorA = 0;
  let cursorB = 0;
  while (cursorA < rangesA.length && cursorB < rangesB.length) {
    const rangeA = rangesA[cursorA];
    const rangeAMin = rangeA[0];
    const rangeAMax = rangeA.length === 1 ? rangeA[0] : rangeA[1];
    const rangeB = rangesB[cursorB];
    const rangeBMin = rangeB[0];
    const rangeBMax = rangeB.length === 1 ? rangeB[0] : rangeB[1];
    if (rangeAMax < rangeBMin) cursorA += 1;
    else if (rangeBMax < rangeAMin) cursorB += 1;
    else {
      let min = safeMathMax$1(rangeAMin, rangeBMin);
      const max = safeMathMin$2(rangeAMax, rangeBMax);
      if (mergedRanges.length >= 1) {
        const lastMergedRange = mergedRanges[mergedRanges.length - 1];
        if ((lastMergedRange.length === 1 ? lastMergedRange[0] : lastMergedRange[1]) + 1 === min) {
          min = lastMergedRange[0];
          safePop$1(mergedRanges);
        }
      }
      safePush(mergedRanges, min === max ? [min] : [min, max]);
      if (rangeAMax <= max) cursorA += 1;
      if (rangeBMax <= max) cursorB += 1;
    }
  }
  return mergedRanges;
}
var registeredStringUnitInstancesMap = /* @__PURE__ */ Object.create(null);
function getAlphabetRanges(alphabet) {
  switch (alphabet) {
    case "full":
      return fullAlphabetRanges;
    case "ascii":
      return asciiAlphabetRanges;
  }
}
function getOrCreateStringUnitInstance(type, alphabet) {
  const key = `${type}:${alphabet}`;
  const registered = registeredStringUnitInstancesMap[key];
  if (registered !== void 0) return registered;
  const alphabetRanges = getAlphabetRanges(alphabet);
  const ranges = type === "binary" ? alphabetRanges : intersectGraphemeRanges(alphabetRanges, autonomousGraphemeRanges);
  const entries = [];
  for (const range of ranges) safePush(entries, convertGraphemeRangeToMapToConstantEntry(range));
  if (type === "grapheme") {
    const decomposedRanges = intersectGraphemeRanges(alphabetRanges, autonomousDecomposableGraphemeRanges);
    for (const range of decomposedRanges) {
      const rawEntry = convertGraphemeRangeToMapToConstantEntry(range);
      safePush(entries, {
        num: rawEntry.num,
        build: (idInGroup) => safeNormalize(rawEntry.build(idInGroup), "NFD")
      });
    }
  }
  const stringUnitInstance = mapToConstant(...entries);
  registeredStringUnitInstancesMap[key] = stringUnitInstance;
  return stringUnitInstance;
}
function stringUnit(type, alphabet) {
  return getOrCreateStringUnitInstance(type, alphabet);
}
function extractUnitArbitrary(constraints) {
  if (typeof constraints.unit === "object") return constraints.unit;
  switch (constraints.unit) {
    case "grapheme":
      return stringUnit("grapheme", "full");
    case "grapheme-composite":
      return stringUnit("composite", "full");
    case "grapheme-ascii":
    case void 0:
      return stringUnit("grapheme", "ascii");
    case "binary":
      return stringUnit("binary", "full");
    case "binary-ascii":
      return stringUnit("binary", "ascii");
  }
}
function string(constraints = {}) {
  const charArbitrary = extractUnitArbitrary(constraints);
  const unmapper = patternsToStringUnmapperFor(charArbitrary, constraints);
  const experimentalCustomSlices = createSlicesForString(charArbitrary, constraints);
  return array(charArbitrary, {
    ...constraints,
    experimentalCustomSlices
  }).map(patternsToStringMapper, unmapper);
}
var safeStringFromCharCode$1 = String.fromCharCode;
var safeNegativeInfinity$6 = SNumber.NEGATIVE_INFINITY;
var safePositiveInfinity$6 = SNumber.POSITIVE_INFINITY;
var safeEpsilon = SNumber.EPSILON;
var INDEX_POSITIVE_INFINITY$1 = SBigInt2(2146435072) * SBigInt2(4294967296);
var INDEX_NEGATIVE_INFINITY$1 = -INDEX_POSITIVE_INFINITY$1 - SBigInt2(1);
var big2Pow52Mask = SBigInt2(4503599627370495);
var big2Pow53 = SBigInt2("9007199254740992");
var f64 = /* @__PURE__ */ new Float64Array(1);
var u32$1 = new Uint32Array(f64.buffer, f64.byteOffset);
var safeNumberIsInteger$2 = Number.isInteger;
var safeNegativeInfinity$5 = Number.NEGATIVE_INFINITY;
var safePositiveInfinity$5 = Number.POSITIVE_INFINITY;
var safeNegativeInfinity$4 = Number.NEGATIVE_INFINITY;
var safePositiveInfinity$4 = Number.POSITIVE_INFINITY;
var safeMaxValue$2 = Number.MAX_VALUE;
var safeNumberIsInteger$1 = Number.isInteger;
var safeNumberIsNaN$1 = Number.isNaN;
var safeNegativeInfinity$3 = Number.NEGATIVE_INFINITY;
var safePositiveInfinity$3 = Number.POSITIVE_INFINITY;
var safeMaxValue$1 = Number.MAX_VALUE;
var safeNegativeInfinity$2 = Number.NEGATIVE_INFINITY;
var safePositiveInfinity$2 = Number.POSITIVE_INFINITY;
var MAX_VALUE_32 = 2 ** 127 * (1 + (2 ** 23 - 1) / 2 ** 23);
var f32 = /* @__PURE__ */ new Float32Array(1);
var u32 = new Uint32Array(f32.buffer, f32.byteOffset);
var safeNegativeInfinity$1 = Number.NEGATIVE_INFINITY;
var safePositiveInfinity$1 = Number.POSITIVE_INFINITY;
var safeNumberIsInteger = Number.isInteger;
var safeNumberIsNaN = Number.isNaN;
var safeNegativeInfinity = Number.NEGATIVE_INFINITY;
var safePositiveInfinity = Number.POSITIVE_INFINITY;
var safeMinSafeInteger = Number.MIN_SAFE_INTEGER;
var safeMaxSafeInteger$1 = Number.MAX_SAFE_INTEGER;
var safeMaxSafeInteger = Number.MAX_SAFE_INTEGER;
var safeNumberParseInt = Number.parseInt;
var safeObjectPrototype = Object.prototype;
var safeArrayIsArray$1 = SArray.isArray;
var safeStringFromCharCode = String.fromCharCode;
var encodeSymbolLookupTable = {
  10: "A",
  11: "B",
  12: "C",
  13: "D",
  14: "E",
  15: "F",
  16: "G",
  17: "H",
  18: "J",
  19: "K",
  20: "M",
  21: "N",
  22: "P",
  23: "Q",
  24: "R",
  25: "S",
  26: "T",
  27: "V",
  28: "W",
  29: "X",
  30: "Y",
  31: "Z"
};
function encodeSymbol(symbol) {
  return symbol < 10 ? SString(symbol) : encodeSymbolLookupTable[symbol];
}
function pad(value, paddingLength) {
  let extraPadding = "";
  while (value.length + extraPadding.length < paddingLength) extraPadding += "0";
  return extraPadding + value;
}
function smallUintToBase32StringMapper(num) {
  let base32Str = "";
  for (let remaining = num; remaining !== 0; ) {
    const next = remaining >> 5;
    base32Str = encodeSymbol(remaining - (next << 5)) + base32Str;
    remaining = next;
  }
  return base32Str;
}
function uintToBase32StringMapper(num, paddingLength) {
  const head = ~~(num / 1073741824);
  const tail = num & 1073741823;
  return pad(smallUintToBase32StringMapper(head), paddingLength - 6) + pad(smallUintToBase32StringMapper(tail), 6);
}
function paddedUintToBase32StringMapper(paddingLength) {
  return function padded(num) {
    return uintToBase32StringMapper(num, paddingLength);
  };
}
var padded10Mapper = paddedUintToBase32StringMapper(10);
var padded8Mapper = paddedUintToBase32StringMapper(8);
function noSuchValue(_value, returnedValue) {
  return returnedValue;
}
var safeMathFloor = Math.floor;
var safeMathMin = Math.min;
function clampRegexAstInternal(astNode, maxLength) {
  switch (astNode.type) {
    case "Char":
      return {
        astNode,
        minLength: 1
      };
    case "Repetition":
      switch (astNode.quantifier.kind) {
        case "*": {
          const clamped = clampRegexAstInternal(astNode.expression, maxLength);
          return {
            astNode: {
              type: "Repetition",
              quantifier: {
                ...astNode.quantifier,
                kind: "Range",
                from: 0,
                to: maxLength
              },
              expression: clamped.astNode
            },
            minLength: 0
          };
        }
        case "+": {
          const clamped = clampRegexAstInternal(astNode.expression, maxLength);
          const scaledClampedMinLength = clamped.minLength > 1 ? clamped.minLength : 1;
          return {
            astNode: {
              type: "Repetition",
              quantifier: {
                ...astNode.quantifier,
                kind: "Range",
                from: 1,
                to: safeMathFloor(maxLength / scaledClampedMinLength)
              },
              expression: clamped.astNode
            },
            minLength: clamped.minLength
          };
        }
        case "?": {
          const clamped = clampRegexAstInternal(astNode.expression, maxLength);
          if (maxLength < clamped.minLength) return {
            astNode: {
              type: "Repetition",
              quantifier: {
                ...astNode.quantifier,
                kind: "Range",
                from: 0,
                to: 0
              },
              expression: clamped.astNode
            },
            minLength: 0
          };
          return {
            astNode: {
              ...astNode,
              expression: clamped.astNode
            },
            minLength: 0
          };
        }
        case "Range": {
          const scaledMaxLength = astNode.quantifier.from > 1 ? safeMathFloor(maxLength / astNode.quantifier.from) : maxLength;
          const clamped = clampRegexAstInternal(astNode.expression, scaledMaxLength);
          const scaledClampedMinLength = clamped.minLength > 1 ? clamped.minLength : 1;
          if (astNode.quantifier.to === void 0 || astNode.quantifier.to * scaledClampedMinLength > maxLength) return {
            astNode: {
              type: "Repetition",
              quantifier: {
                ...astNode.quantifier,
                kind: "Range",
                to: safeMathFloor(maxLength / scaledClampedMinLength)
              },
              expression: clamped.astNode
            },
            minLength: astNode.quantifier.from * clamped.minLength
          };
          return {
            astNode: {
              ...astNode,
              expression: clamped.astNode
            },
            minLength: astNode.quantifier.from * clamped.minLength
          };
        }
        default:
          return noSuchValue(astNode.quantifier, {
            astNode,
            minLength: 0
          });
      }
    case "Quantifier":
      return {
        astNode,
        minLength: 0
      };
    case "Alternative": {
      let totalMinLength = 0;
      const extendedClampeds = [];
      for (let index = 0; index !== astNode.expressions.length; ++index) {
        const temporaryAllowance = maxLength - totalMinLength;
        const clamped = clampRegexAstInternal(astNode.expressions[index], temporaryAllowance);
        totalMinLength += clamped.minLength;
        safePush(extendedClampeds, {
          value: clamped,
          allowance: temporaryAllowance
        });
      }
      const refinedExpressions = [];
      for (let index = 0; index !== extendedClampeds.length; ++index) {
        const current = extendedClampeds[index].value;
        const pastAllowance = extendedClampeds[index].allowance;
        const allowance = maxLength - totalMinLength + current.minLength;
        safePush(refinedExpressions, (allowance !== pastAllowance ? clampRegexAstInternal(current.astNode, allowance) : current).astNode);
      }
      return {
        astNode: {
          ...astNode,
          expressions: refinedExpressions
        },
        minLength: totalMinLength
      };
    }
    case "CharacterClass":
      return {
        astNode,
        minLength: 1
      };
    case "ClassRange":
      return {
        astNode,
        minLength: 1
      };
    case "Group": {
      const clamped = clampRegexAstInternal(astNode.expression, maxLength);
      return {
        astNode: {
          ...astNode,
          expression: clamped.astNode
        },
        minLength: clamped.minLength
      };
    }
    case "Disjunction": {
      if (astNode.left === null) {
        if (astNode.right === null) return {
          astNode,
          minLength: 0
        };
        const clampedRight2 = clampRegexAstInternal(astNode.right, maxLength);
        const refinedRight = clampedRight2.minLength > maxLength ? null : clampedRight2.astNode;
        return {
          astNode: {
            ...astNode,
            left: null,
            right: refinedRight
          },
          minLength: 0
        };
      }
      if (astNode.right === null) {
        const clampLeft = clampRegexAstInternal(astNode.left, maxLength);
        const refinedLeft = clampLeft.minLength > maxLength ? null : clampLeft.astNode;
        return {
          astNode: {
            ...astNode,
            left: refinedLeft,
            right: null
          },
          minLength: 0
        };
      }
      const clampedLeft = clampRegexAstInternal(astNode.left, maxLength);
      const clampedRight = clampRegexAstInternal(astNode.right, maxLength);
      if (clampedLeft.minLength > maxLength) return clampedRight;
      if (clampedRight.minLength > maxLength) return clampedLeft;
      return {
        astNode: {
          ...astNode,
          left: clampedLeft.astNode,
          right: clampedRight.astNode
        },
        minLength: safeMathMin(clampedLeft.minLength, clampedRight.minLength)
      };
    }
    case "Assertion":
      return {
        astNode,
        minLength: 0
      };
    case "Backreference":
      return {
        astNode,
        minLength: 0
      };
    case "UnicodeProperty":
      return {
        astNode,
        minLength: 1
      };
  }
}
function clampRegexAst(astNode, maxLength) {
  return clampRegexAstInternal(astNode, maxLength).astNode;
}
function raiseUnsupportedASTNode$1(astNode) {
  return /* @__PURE__ */ new Error(`Unsupported AST node! Received: ${stringify(astNode)}`);
}
function addMissingDotStarTraversalAddMissing(astNode, isFirst, isLast) {
  if (!isFirst && !isLast) return astNode;
  const traversalResults = {
    hasStart: false,
    hasEnd: false
  };
  const revampedNode = addMissingDotStarTraversal(astNode, isFirst, isLast, traversalResults);
  const missingStart = isFirst && !traversalResults.hasStart;
  const missingEnd = isLast && !traversalResults.hasEnd;
  if (!missingStart && !missingEnd) return revampedNode;
  const expressions = [];
  if (missingStart) {
    expressions.push({
      type: "Assertion",
      kind: "^"
    });
    expressions.push({
      type: "Repetition",
      quantifier: {
        type: "Quantifier",
        kind: "*",
        greedy: true
      },
      expression: {
        type: "Char",
        kind: "meta",
        symbol: ".",
        value: ".",
        codePoint: NaN
      }
    });
  }
  expressions.push(revampedNode);
  if (missingEnd) {
    expressions.push({
      type: "Repetition",
      quantifier: {
        type: "Quantifier",
        kind: "*",
        greedy: true
      },
      expression: {
        type: "Char",
        kind: "meta",
        symbol: ".",
        value: ".",
        codePoint: NaN
      }
    });
    expressions.push({
      type: "Assertion",
      kind: "$"
    });
  }
  return {
    type: "Group",
    capturing: false,
    expression: {
      type: "Alternative",
      expressions
    }
  };
}
function addMissingDotStarTraversal(astNode, isFirst, isLast, traversalResults) {
  switch (astNode.type) {
    case "Char":
      return astNode;
    case "Repetition":
      return astNode;
    case "Quantifier":
      throw new Error(`Wrongly defined AST tree, Quantifier nodes not supposed to be scanned!`);
    case "Alternative":
      traversalResults.hasStart = true;
      traversalResults.hasEnd = true;
      return {
        ...astNode,
        expressions: astNode.expressions.map((node2, index) => addMissingDotStarTraversalAddMissing(node2, isFirst && index === 0, isLast && index === astNode.expressions.length - 1))
      };
    case "CharacterClass":
      return astNode;
    case "ClassRange":
      return astNode;
    case "Group":
      return {
        ...astNode,
        expression: addMissingDotStarTraversal(astNode.expression, isFirst, isLast, traversalResults)
      };
    case "Disjunction":
      traversalResults.hasStart = true;
      traversalResults.hasEnd = true;
      return {
        ...astNode,
        left: astNode.left !== null ? addMissingDotStarTraversalAddMissing(astNode.left, isFirst, isLast) : null,
        right: astNode.right !== null ? addMissingDotStarTraversalAddMissing(astNode.right, isFirst, isLast) : null
      };
    case "Assertion":
      if (astNode.kind === "^" || astNode.kind === "Lookahead") {
        traversalResults.hasStart = true;
        return astNode;
      } else if (astNode.kind === "$" || astNode.kind === "Lookbehind") {
        traversalResults.hasEnd = true;
        return astNode;
      } else throw new Error(`Assertions of kind ${astNode.kind} not implemented yet!`);
    case "Backreference":
      return astNode;
    case "UnicodeProperty":
      return astNode;
    default:
      throw raiseUnsupportedASTNode$1(astNode);
  }
}
function addMissingDotStar(astNode) {
  return addMissingDotStarTraversalAddMissing(astNode, true, true);
}
function charSizeAt(text3, pos) {
  return text3[pos] >= "\uD800" && text3[pos] <= "\uDBFF" && text3[pos + 1] >= "\uDC00" && text3[pos + 1] <= "\uDFFF" ? 2 : 1;
}
function isHexaDigit(char) {
  return char >= "0" && char <= "9" || char >= "a" && char <= "f" || char >= "A" && char <= "F";
}
function isDigit$1(char) {
  return char >= "0" && char <= "9";
}
function squaredBracketBlockContentEndFrom(text3, from) {
  for (let index = from; index !== text3.length; ++index) {
    const char = text3[index];
    if (char === "\\") index += 1;
    else if (char === "]") return index;
  }
  throw new Error(`Missing closing ']'`);
}
function parenthesisBlockContentEndFrom(text3, from) {
  let numExtraOpened = 0;
  for (let index = from; index !== text3.length; ++index) {
    const char = text3[index];
    if (char === "\\") index += 1;
    else if (char === ")") {
      if (numExtraOpened === 0) return index;
      numExtraOpened -= 1;
    } else if (char === "[") index = squaredBracketBlockContentEndFrom(text3, index);
    else if (char === "(") numExtraOpened += 1;
  }
  throw new Error(`Missing closing ')'`);
}
function curlyBracketBlockContentEndFrom(text3, from) {
  let foundComma = false;
  for (let index = from; index !== text3.length; ++index) {
    const char = text3[index];
    if (isDigit$1(char)) {
    } else if (from === index) return -1;
    else if (char === ",") {
      if (foundComma) return -1;
      foundComma = true;
    } else if (char === "}") return index;
    else return -1;
  }
  return -1;
}
function blockEndFrom(text3, from, unicodeMode, mode) {
  switch (text3[from]) {
    case "[":
      if (mode === 1) return from + 1;
      return squaredBracketBlockContentEndFrom(text3, from + 1) + 1;
    case "{": {
      if (mode === 1) return from + 1;
      const foundEnd = curlyBracketBlockContentEndFrom(text3, from + 1);
      if (foundEnd === -1) return from + 1;
      return foundEnd + 1;
    }
    case "(":
      if (mode === 1) return from + 1;
      return parenthesisBlockContentEndFrom(text3, from + 1) + 1;
    case "]":
    case "}":
    case ")":
      return from + 1;
    case "\\": {
      const next1 = text3[from + 1];
      switch (next1) {
        case "x":
          if (isHexaDigit(text3[from + 2]) && isHexaDigit(text3[from + 3])) return from + 4;
          throw new Error(`Unexpected token '${text3.substring(from, from + 4)}' found`);
        case "u":
          if (text3[from + 2] === "{") {
            if (!unicodeMode) return from + 2;
            if (text3[from + 4] === "}") {
              if (isHexaDigit(text3[from + 3])) return from + 5;
              throw new Error(`Unexpected token '${text3.substring(from, from + 5)}' found`);
            }
            if (text3[from + 5] === "}") {
              if (isHexaDigit(text3[from + 3]) && isHexaDigit(text3[from + 4])) return from + 6;
              throw new Error(`Unexpected token '${text3.substring(from, from + 6)}' found`);
            }
            if (text3[from + 6] === "}") {
              if (isHexaDigit(text3[from + 3]) && isHexaDigit(text3[from + 4]) && isHexaDigit(text3[from + 5])) return from + 7;
              throw new Error(`Unexpected token '${text3.substring(from, from + 7)}' found`);
            }
            if (text3[from + 7] === "}") {
              if (isHexaDigit(text3[from + 3]) && isHexaDigit(text3[from + 4]) && isHexaDigit(text3[from + 5]) && isHexaDigit(text3[from + 6])) return from + 8;
              throw new Error(`Unexpected token '${text3.substring(from, from + 8)}' found`);
            }
            if (text3[from + 8] === "}" && isHexaDigit(text3[from + 3]) && isHexaDigit(text3[from + 4]) && isHexaDigit(text3[from + 5]) && isHexaDigit(text3[from + 6]) && isHexaDigit(text3[from + 7])) return from + 9;
            throw new Error(`Unexpected token '${text3.substring(from, from + 9)}' found`);
          }
          if (isHexaDigit(text3[from + 2]) && isHexaDigit(text3[from + 3]) && isHexaDigit(text3[from + 4]) && isHexaDigit(text3[from + 5])) return from + 6;
          throw new Error(`Unexpected token '${text3.substring(from, from + 6)}' found`);
        case "p":
        case "P": {
          if (!unicodeMode) return from + 2;
          let subIndex = from + 2;
          for (; subIndex < text3.length && text3[subIndex] !== "}"; subIndex += text3[subIndex] === "\\" ? 2 : 1) ;
          if (text3[subIndex] !== "}") throw new Error(`Invalid \\P definition`);
          return subIndex + 1;
        }
        case "k": {
          let subIndex = from + 2;
          for (; subIndex < text3.length && text3[subIndex] !== ">"; ++subIndex) ;
          if (text3[subIndex] !== ">") {
            if (!unicodeMode) return from + 2;
            throw new Error(`Invalid \\k definition`);
          }
          return subIndex + 1;
        }
        default:
          if (isDigit$1(next1)) {
            const maxIndex = unicodeMode ? text3.length : Math.min(from + 4, text3.length);
            let subIndex = from + 2;
            for (; subIndex < maxIndex && isDigit$1(text3[subIndex]); ++subIndex) ;
            return subIndex;
          }
          return from + (unicodeMode ? charSizeAt(text3, from + 1) : 1) + 1;
      }
    }
    default:
      return from + (unicodeMode ? charSizeAt(text3, from) : 1);
  }
}
function readFrom(text3, from, unicodeMode, mode) {
  const to = blockEndFrom(text3, from, unicodeMode, mode);
  return text3.substring(from, to);
}
var NON_BINARY_ALIASES_TO_PROP_NAMES = {
  gc: "General_Category",
  sc: "Script",
  scx: "Script_Extensions"
};
var BINARY_PROP_NAMES_TO_ALIASES = {
  ASCII: "ASCII",
  ASCII_Hex_Digit: "AHex",
  Alphabetic: "Alpha",
  Any: "Any",
  Assigned: "Assigned",
  Bidi_Control: "Bidi_C",
  Bidi_Mirrored: "Bidi_M",
  Case_Ignorable: "CI",
  Cased: "Cased",
  Changes_When_Casefolded: "CWCF",
  Changes_When_Casemapped: "CWCM",
  Changes_When_Lowercased: "CWL",
  Changes_When_NFKC_Casefolded: "CWKCF",
  Changes_When_Titlecased: "CWT",
  Changes_When_Uppercased: "CWU",
  Dash: "Dash",
  Default_Ignorable_Code_Point: "DI",
  Deprecated: "Dep",
  Diacritic: "Dia",
  Emoji: "Emoji",
  Emoji_Component: "Emoji_Component",
  Emoji_Modifier: "Emoji_Modifier",
  Emoji_Modifier_Base: "Emoji_Modifier_Base",
  Emoji_Presentation: "Emoji_Presentation",
  Extended_Pictographic: "Extended_Pictographic",
  Extender: "Ext",
  Grapheme_Base: "Gr_Base",
  Grapheme_Extend: "Gr_Ext",
  Hex_Digit: "Hex",
  IDS_Binary_Operator: "IDSB",
  IDS_Trinary_Operator: "IDST",
  ID_Continue: "IDC",
  ID_Start: "IDS",
  Ideographic: "Ideo",
  Join_Control: "Join_C",
  Logical_Order_Exception: "LOE",
  Lowercase: "Lower",
  Math: "Math",
  Noncharacter_Code_Point: "NChar",
  Pattern_Syntax: "Pat_Syn",
  Pattern_White_Space: "Pat_WS",
  Quotation_Mark: "QMark",
  Radical: "Radical",
  Regional_Indicator: "RI",
  Sentence_Terminal: "STerm",
  Soft_Dotted: "SD",
  Terminal_Punctuation: "Term",
  Unified_Ideograph: "UIdeo",
  Uppercase: "Upper",
  Variation_Selector: "VS",
  White_Space: "space",
  XID_Continue: "XIDC",
  XID_Start: "XIDS"
};
var BINARY_ALIASES_TO_PROP_NAMES = inverseMap(BINARY_PROP_NAMES_TO_ALIASES);
var GENERAL_CATEGORY_VALUE_TO_ALIASES = {
  Cased_Letter: "LC",
  Close_Punctuation: "Pe",
  Connector_Punctuation: "Pc",
  Control: ["Cc", "cntrl"],
  Currency_Symbol: "Sc",
  Dash_Punctuation: "Pd",
  Decimal_Number: ["Nd", "digit"],
  Enclosing_Mark: "Me",
  Final_Punctuation: "Pf",
  Format: "Cf",
  Initial_Punctuation: "Pi",
  Letter: "L",
  Letter_Number: "Nl",
  Line_Separator: "Zl",
  Lowercase_Letter: "Ll",
  Mark: ["M", "Combining_Mark"],
  Math_Symbol: "Sm",
  Modifier_Letter: "Lm",
  Modifier_Symbol: "Sk",
  Nonspacing_Mark: "Mn",
  Number: "N",
  Open_Punctuation: "Ps",
  Other: "C",
  Other_Letter: "Lo",
  Other_Number: "No",
  Other_Punctuation: "Po",
  Other_Symbol: "So",
  Paragraph_Separator: "Zp",
  Private_Use: "Co",
  Punctuation: ["P", "punct"],
  Separator: "Z",
  Space_Separator: "Zs",
  Spacing_Mark: "Mc",
  Surrogate: "Cs",
  Symbol: "S",
  Titlecase_Letter: "Lt",
  Unassigned: "Cn",
  Uppercase_Letter: "Lu"
};
var GENERAL_CATEGORY_VALUE_ALIASES_TO_VALUES = inverseMap(GENERAL_CATEGORY_VALUE_TO_ALIASES);
var SCRIPT_VALUE_TO_ALIASES = {
  Adlam: "Adlm",
  Ahom: "Ahom",
  Anatolian_Hieroglyphs: "Hluw",
  Arabic: "Arab",
  Armenian: "Armn",
  Avestan: "Avst",
  Balinese: "Bali",
  Bamum: "Bamu",
  Bassa_Vah: "Bass",
  Batak: "Batk",
  Bengali: "Beng",
  Bhaiksuki: "Bhks",
  Bopomofo: "Bopo",
  Brahmi: "Brah",
  Braille: "Brai",
  Buginese: "Bugi",
  Buhid: "Buhd",
  Canadian_Aboriginal: "Cans",
  Carian: "Cari",
  Caucasian_Albanian: "Aghb",
  Chakma: "Cakm",
  Cham: "Cham",
  Cherokee: "Cher",
  Common: "Zyyy",
  Coptic: ["Copt", "Qaac"],
  Cuneiform: "Xsux",
  Cypriot: "Cprt",
  Cyrillic: "Cyrl",
  Deseret: "Dsrt",
  Devanagari: "Deva",
  Dogra: "Dogr",
  Duployan: "Dupl",
  Egyptian_Hieroglyphs: "Egyp",
  Elbasan: "Elba",
  Ethiopic: "Ethi",
  Georgian: "Geor",
  Glagolitic: "Glag",
  Gothic: "Goth",
  Grantha: "Gran",
  Greek: "Grek",
  Gujarati: "Gujr",
  Gunjala_Gondi: "Gong",
  Gurmukhi: "Guru",
  Han: "Hani",
  Hangul: "Hang",
  Hanifi_Rohingya: "Rohg",
  Hanunoo: "Hano",
  Hatran: "Hatr",
  Hebrew: "Hebr",
  Hiragana: "Hira",
  Imperial_Aramaic: "Armi",
  Inherited: ["Zinh", "Qaai"],
  Inscriptional_Pahlavi: "Phli",
  Inscriptional_Parthian: "Prti",
  Javanese: "Java",
  Kaithi: "Kthi",
  Kannada: "Knda",
  Katakana: "Kana",
  Kayah_Li: "Kali",
  Kharoshthi: "Khar",
  Khmer: "Khmr",
  Khojki: "Khoj",
  Khudawadi: "Sind",
  Lao: "Laoo",
  Latin: "Latn",
  Lepcha: "Lepc",
  Limbu: "Limb",
  Linear_A: "Lina",
  Linear_B: "Linb",
  Lisu: "Lisu",
  Lycian: "Lyci",
  Lydian: "Lydi",
  Mahajani: "Mahj",
  Makasar: "Maka",
  Malayalam: "Mlym",
  Mandaic: "Mand",
  Manichaean: "Mani",
  Marchen: "Marc",
  Medefaidrin: "Medf",
  Masaram_Gondi: "Gonm",
  Meetei_Mayek: "Mtei",
  Mende_Kikakui: "Mend",
  Meroitic_Cursive: "Merc",
  Meroitic_Hieroglyphs: "Mero",
  Miao: "Plrd",
  Modi: "Modi",
  Mongolian: "Mong",
  Mro: "Mroo",
  Multani: "Mult",
  Myanmar: "Mymr",
  Nabataean: "Nbat",
  New_Tai_Lue: "Talu",
  Newa: "Newa",
  Nko: "Nkoo",
  Nushu: "Nshu",
  Ogham: "Ogam",
  Ol_Chiki: "Olck",
  Old_Hungarian: "Hung",
  Old_Italic: "Ital",
  Old_North_Arabian: "Narb",
  Old_Permic: "Perm",
  Old_Persian: "Xpeo",
  Old_Sogdian: "Sogo",
  Old_South_Arabian: "Sarb",
  Old_Turkic: "Orkh",
  Oriya: "Orya",
  Osage: "Osge",
  Osmanya: "Osma",
  Pahawh_Hmong: "Hmng",
  Palmyrene: "Palm",
  Pau_Cin_Hau: "Pauc",
  Phags_Pa: "Phag",
  Phoenician: "Phnx",
  Psalter_Pahlavi: "Phlp",
  Rejang: "Rjng",
  Runic: "Runr",
  Samaritan: "Samr",
  Saurashtra: "Saur",
  Sharada: "Shrd",
  Shavian: "Shaw",
  Siddham: "Sidd",
  SignWriting: "Sgnw",
  Sinhala: "Sinh",
  Sogdian: "Sogd",
  Sora_Sompeng: "Sora",
  Soyombo: "Soyo",
  Sundanese: "Sund",
  Syloti_Nagri: "Sylo",
  Syriac: "Syrc",
  Tagalog: "Tglg",
  Tagbanwa: "Tagb",
  Tai_Le: "Tale",
  Tai_Tham: "Lana",
  Tai_Viet: "Tavt",
  Takri: "Takr",
  Tamil: "Taml",
  Tangut: "Tang",
  Telugu: "Telu",
  Thaana: "Thaa",
  Thai: "Thai",
  Tibetan: "Tibt",
  Tifinagh: "Tfng",
  Tirhuta: "Tirh",
  Ugaritic: "Ugar",
  Vai: "Vaii",
  Warang_Citi: "Wara",
  Yi: "Yiii",
  Zanabazar_Square: "Zanb"
};
var SCRIPT_VALUE_ALIASES_TO_VALUES = inverseMap(SCRIPT_VALUE_TO_ALIASES);
function inverseMap(data) {
  const inverse = {};
  for (const name2 of Object.keys(data)) {
    const value = data[name2];
    if (Array.isArray(value)) for (let i = 0; i !== value.length; ++i) inverse[value[i]] = name2;
    else inverse[value] = name2;
  }
  return inverse;
}
function isGeneralCategoryValue(value) {
  return value in GENERAL_CATEGORY_VALUE_TO_ALIASES || value in GENERAL_CATEGORY_VALUE_ALIASES_TO_VALUES;
}
function isBinaryPropertyName(name2) {
  return name2 in BINARY_PROP_NAMES_TO_ALIASES || name2 in BINARY_ALIASES_TO_PROP_NAMES;
}
function getCanonicalName(name2) {
  if (name2 in NON_BINARY_ALIASES_TO_PROP_NAMES) return NON_BINARY_ALIASES_TO_PROP_NAMES[name2];
  if (name2 in BINARY_ALIASES_TO_PROP_NAMES) return BINARY_ALIASES_TO_PROP_NAMES[name2];
  if (name2 in BINARY_PROP_NAMES_TO_ALIASES || name2 === "General_Category" || name2 === "Script" || name2 === "Script_Extensions") return name2;
  throw new Error(`Unknown Unicode property name: ${name2}`);
}
function getCanonicalValue(value) {
  if (value in GENERAL_CATEGORY_VALUE_ALIASES_TO_VALUES) return GENERAL_CATEGORY_VALUE_ALIASES_TO_VALUES[value];
  if (value in SCRIPT_VALUE_ALIASES_TO_VALUES) return SCRIPT_VALUE_ALIASES_TO_VALUES[value];
  if (value in BINARY_ALIASES_TO_PROP_NAMES) return BINARY_ALIASES_TO_PROP_NAMES[value];
  if (value in GENERAL_CATEGORY_VALUE_TO_ALIASES || value in SCRIPT_VALUE_TO_ALIASES || value in BINARY_PROP_NAMES_TO_ALIASES) return value;
  throw new Error(`Unknown Unicode property value: ${value}`);
}
function resolveUnicodeProperty(propertySpec, negative) {
  const equalIndex = propertySpec.indexOf("=");
  if (equalIndex !== -1) {
    const name2 = propertySpec.substring(0, equalIndex);
    const value = propertySpec.substring(equalIndex + 1);
    return {
      type: "UnicodeProperty",
      name: name2,
      value,
      negative,
      shorthand: false,
      binary: false,
      canonicalName: getCanonicalName(name2),
      canonicalValue: getCanonicalValue(value)
    };
  }
  if (isGeneralCategoryValue(propertySpec)) return {
    type: "UnicodeProperty",
    name: "General_Category",
    value: propertySpec,
    negative,
    shorthand: true,
    binary: false,
    canonicalName: "General_Category",
    canonicalValue: getCanonicalValue(propertySpec)
  };
  if (isBinaryPropertyName(propertySpec)) {
    const canonicalName = getCanonicalName(propertySpec);
    return {
      type: "UnicodeProperty",
      name: propertySpec,
      value: propertySpec,
      negative,
      shorthand: false,
      binary: true,
      canonicalName,
      canonicalValue: canonicalName
    };
  }
  throw new Error(`Invalid Unicode property: ${propertySpec}`);
}
var safeStringFromCodePoint$2 = String.fromCodePoint;
function safePop(tokens) {
  const previous = tokens.pop();
  if (previous === void 0) throw new Error("Unable to extract token preceeding the currently parsed one");
  return previous;
}
function isDigit(char) {
  return char >= "0" && char <= "9";
}
function simpleChar(char, escaped) {
  return {
    type: "Char",
    kind: "simple",
    symbol: char,
    value: char,
    codePoint: char.codePointAt(0) || -1,
    escaped
  };
}
function metaEscapedChar(block, symbol) {
  return {
    type: "Char",
    kind: "meta",
    symbol,
    value: block,
    codePoint: symbol.codePointAt(0) || -1
  };
}
function toSingleToken(tokens, allowEmpty) {
  if (tokens.length > 1) return {
    type: "Alternative",
    expressions: tokens
  };
  if (!allowEmpty && tokens.length === 0) throw new Error(`Unsupported no token`);
  return tokens[0];
}
function blockToCharToken(block) {
  if (block[0] === "\\") {
    const next = block[1];
    switch (next) {
      case "x": {
        const allDigits = block.substring(2);
        const codePoint = Number.parseInt(allDigits, 16);
        return {
          type: "Char",
          kind: "hex",
          symbol: safeStringFromCodePoint$2(codePoint),
          value: block,
          codePoint
        };
      }
      case "u": {
        if (block === "\\u") return simpleChar("u", true);
        const allDigits = block[2] === "{" ? block.substring(3, block.length - 1) : block.substring(2);
        const codePoint = Number.parseInt(allDigits, 16);
        return {
          type: "Char",
          kind: "unicode",
          symbol: safeStringFromCodePoint$2(codePoint),
          value: block,
          codePoint
        };
      }
      case "0":
        return metaEscapedChar(block, "\0");
      case "n":
        return metaEscapedChar(block, "\n");
      case "f":
        return metaEscapedChar(block, "\f");
      case "r":
        return metaEscapedChar(block, "\r");
      case "t":
        return metaEscapedChar(block, "	");
      case "v":
        return metaEscapedChar(block, "\v");
      case "w":
      case "W":
      case "d":
      case "D":
      case "s":
      case "S":
      case "b":
      case "B":
        return {
          type: "Char",
          kind: "meta",
          symbol: void 0,
          value: block,
          codePoint: NaN
        };
      default:
        if (isDigit(next)) {
          const allDigits = block.substring(1);
          const codePoint = Number(allDigits);
          return {
            type: "Char",
            kind: "decimal",
            symbol: safeStringFromCodePoint$2(codePoint),
            value: block,
            codePoint
          };
        }
        if (block.length > 2 && (next === "p" || next === "P")) {
          const negative = next === "P";
          return resolveUnicodeProperty(block.substring(3, block.length - 1), negative);
        }
        return simpleChar(block.substring(1), true);
    }
  }
  return simpleChar(block);
}
function pushTokens(tokens, regexSource, unicodeMode, groups) {
  let disjunctions = null;
  for (let index = 0, block = readFrom(regexSource, index, unicodeMode, 0); index !== regexSource.length; index += block.length, block = readFrom(regexSource, index, unicodeMode, 0)) {
    const firstInBlock = block[0];
    switch (firstInBlock) {
      case "|":
        if (disjunctions === null) disjunctions = [];
        disjunctions.push(toSingleToken(tokens.splice(0), true) || null);
        break;
      case ".":
        tokens.push({
          type: "Char",
          kind: "meta",
          symbol: block,
          value: block,
          codePoint: NaN
        });
        break;
      case "*":
      case "+": {
        const previous = safePop(tokens);
        tokens.push({
          type: "Repetition",
          expression: previous,
          quantifier: {
            type: "Quantifier",
            kind: firstInBlock,
            greedy: true
          }
        });
        break;
      }
      case "?": {
        const previous = safePop(tokens);
        if (previous.type === "Repetition") {
          previous.quantifier.greedy = false;
          tokens.push(previous);
        } else tokens.push({
          type: "Repetition",
          expression: previous,
          quantifier: {
            type: "Quantifier",
            kind: firstInBlock,
            greedy: true
          }
        });
        break;
      }
      case "{": {
        if (block === "{") {
          tokens.push(simpleChar(block));
          break;
        }
        const previous = safePop(tokens);
        const quantifierTokens = block.substring(1, block.length - 1).split(",");
        const from = Number(quantifierTokens[0]);
        const to = quantifierTokens.length === 1 ? from : quantifierTokens[1].length !== 0 ? Number(quantifierTokens[1]) : void 0;
        tokens.push({
          type: "Repetition",
          expression: previous,
          quantifier: {
            type: "Quantifier",
            kind: "Range",
            greedy: true,
            from,
            to
          }
        });
        break;
      }
      case "[": {
        const blockContent = block.substring(1, block.length - 1);
        const subTokens = [];
        let negative = void 0;
        let previousWasSimpleDash = false;
        for (let subIndex = 0, subBlock = readFrom(blockContent, subIndex, unicodeMode, 1); subIndex !== blockContent.length; subIndex += subBlock.length, subBlock = readFrom(blockContent, subIndex, unicodeMode, 1)) {
          if (subIndex === 0 && subBlock === "^") {
            negative = true;
            continue;
          }
          const newToken = blockToCharToken(subBlock);
          if (subBlock === "-") {
            subTokens.push(newToken);
            previousWasSimpleDash = true;
          } else {
            const operand1Token = subTokens.length >= 2 ? subTokens[subTokens.length - 2] : void 0;
            if (previousWasSimpleDash && operand1Token !== void 0 && operand1Token.type === "Char" && newToken.type === "Char") {
              subTokens.pop();
              subTokens.pop();
              subTokens.push({
                type: "ClassRange",
                from: operand1Token,
                to: newToken
              });
            } else subTokens.push(newToken);
            previousWasSimpleDash = false;
          }
        }
        tokens.push({
          type: "CharacterClass",
          expressions: subTokens,
          negative
        });
        break;
      }
      case "(": {
        const blockContent = block.substring(1, block.length - 1);
        const subTokens = [];
        if (blockContent[0] === "?") {
          if (blockContent[1] === ":") {
            pushTokens(subTokens, blockContent.substring(2), unicodeMode, groups);
            tokens.push({
              type: "Group",
              capturing: false,
              expression: toSingleToken(subTokens)
            });
          } else if (blockContent[1] === "=" || blockContent[1] === "!") {
            pushTokens(subTokens, blockContent.substring(2), unicodeMode, groups);
            tokens.push({
              type: "Assertion",
              kind: "Lookahead",
              negative: blockContent[1] === "!" ? true : void 0,
              assertion: toSingleToken(subTokens)
            });
          } else if (blockContent[1] === "<" && (blockContent[2] === "=" || blockContent[2] === "!")) {
            pushTokens(subTokens, blockContent.substring(3), unicodeMode, groups);
            tokens.push({
              type: "Assertion",
              kind: "Lookbehind",
              negative: blockContent[2] === "!" ? true : void 0,
              assertion: toSingleToken(subTokens)
            });
          } else {
            const chunks = blockContent.split(">");
            if (chunks.length < 2 || chunks[0][1] !== "<") throw new Error(`Unsupported regex content found at ${JSON.stringify(block)}`);
            const groupIndex = ++groups.lastIndex;
            const nameRaw = chunks[0].substring(2);
            groups.named.set(nameRaw, groupIndex);
            pushTokens(subTokens, chunks.slice(1).join(">"), unicodeMode, groups);
            tokens.push({
              type: "Group",
              capturing: true,
              nameRaw,
              name: nameRaw,
              number: groupIndex,
              expression: toSingleToken(subTokens)
            });
          }
        } else {
          const groupIndex = ++groups.lastIndex;
          pushTokens(subTokens, blockContent, unicodeMode, groups);
          tokens.push({
            type: "Group",
            capturing: true,
            number: groupIndex,
            expression: toSingleToken(subTokens)
          });
        }
        break;
      }
      default:
        if (block === "^") tokens.push({
          type: "Assertion",
          kind: block
        });
        else if (block === "$") tokens.push({
          type: "Assertion",
          kind: block
        });
        else if (block[0] === "\\" && isDigit(block[1])) {
          const reference2 = Number(block.substring(1));
          if (unicodeMode || reference2 <= groups.lastIndex) tokens.push({
            type: "Backreference",
            kind: "number",
            number: reference2,
            reference: reference2
          });
          else tokens.push(blockToCharToken(block));
        } else if (block[0] === "\\" && block[1] === "k" && block.length !== 2) {
          const referenceRaw = block.substring(3, block.length - 1);
          tokens.push({
            type: "Backreference",
            kind: "name",
            number: groups.named.get(referenceRaw) || 0,
            referenceRaw,
            reference: referenceRaw
          });
        } else tokens.push(blockToCharToken(block));
    }
  }
  if (disjunctions !== null) {
    disjunctions.push(toSingleToken(tokens.splice(0), true) || null);
    let currentDisjunction = {
      type: "Disjunction",
      left: disjunctions[0],
      right: disjunctions[1]
    };
    for (let index = 2; index < disjunctions.length; ++index) currentDisjunction = {
      type: "Disjunction",
      left: currentDisjunction,
      right: disjunctions[index]
    };
    tokens.push(currentDisjunction);
  }
}
function tokenizeRegex(regex) {
  const unicodeMode = safeIndexOf([...regex.flags], "u") !== -1;
  const regexSource = regex.source;
  const tokens = [];
  pushTokens(tokens, regexSource, unicodeMode, {
    lastIndex: 0,
    named: /* @__PURE__ */ new Map()
  });
  return toSingleToken(tokens);
}
var safeStringFromCodePoint$1 = String.fromCodePoint;
function getPropertySpec(astNode) {
  if (astNode.binary || astNode.shorthand) return astNode.canonicalValue;
  return `${astNode.canonicalName}=${astNode.canonicalValue}`;
}
function appendRangesForRegex(regex, from, to, ranges) {
  let currentRangeStart = -1;
  for (let cp = from; cp <= to; ++cp) if (regex.test(safeStringFromCodePoint$1(cp))) {
    if (currentRangeStart === -1) currentRangeStart = cp;
  } else if (currentRangeStart !== -1) {
    const rangeEnd = cp - 1;
    ranges.push(currentRangeStart === rangeEnd ? [rangeEnd] : [currentRangeStart, rangeEnd]);
    currentRangeStart = -1;
  }
  if (currentRangeStart !== -1) ranges.push(currentRangeStart === to ? [to] : [currentRangeStart, to]);
}
function extractRangesForProperty(propertySpec, negative) {
  const regex = new RegExp(`^\\${negative ? "P" : "p"}{${propertySpec}}$`, "u");
  const ranges = [];
  appendRangesForRegex(regex, 0, 55295, ranges);
  appendRangesForRegex(regex, 57344, 1114111, ranges);
  return ranges;
}
var cache = /* @__PURE__ */ new Map();
function extractRangesForPropertyOrFromCache(propertySpec, negative) {
  const cacheKey = `${negative ? "P" : "p"}:${propertySpec}`;
  const cachedRanges = cache.get(cacheKey);
  if (cachedRanges !== void 0) return cachedRanges;
  const ranges = extractRangesForProperty(propertySpec, negative);
  cache.set(cacheKey, ranges);
  return ranges;
}
function unicodePropertyArbitrary(astNode) {
  return mapToConstant(...safeMap(extractRangesForPropertyOrFromCache(getPropertySpec(astNode), astNode.negative), (range) => convertGraphemeRangeToMapToConstantEntry(range)));
}
var safeStringFromCodePoint = String.fromCodePoint;
var wordChars = [..."abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789_"];
var digitChars = [..."0123456789"];
var spaceChars = [..." 	\r\n\v\f"];
var newLineChars = [..."\r\n"];
var terminatorChars = [...""];
var newLineAndTerminatorChars = [...newLineChars, ...terminatorChars];
var wordCharsSet = new SSet(wordChars);
var digitCharsSet = new SSet(digitChars);
var spaceCharsSet = new SSet(spaceChars);
var terminatorCharsSet = new SSet(terminatorChars);
var newLineAndTerminatorCharsSet = new SSet(newLineAndTerminatorChars);
var defaultChar = () => string({
  unit: "grapheme-ascii",
  minLength: 1,
  maxLength: 1
});
function raiseUnsupportedASTNode(astNode) {
  return new SError(`Unsupported AST node! Received: ${stringify(astNode)}`);
}
function toMatchingArbitrary(astNode, constraints, flags) {
  switch (astNode.type) {
    case "Char":
      if (astNode.kind === "meta") switch (astNode.value) {
        case "\\w":
          return constantFrom(...wordChars);
        case "\\W":
          return defaultChar().filter((c) => !safeHas(wordCharsSet, c));
        case "\\d":
          return constantFrom(...digitChars);
        case "\\D":
          return defaultChar().filter((c) => !safeHas(digitCharsSet, c));
        case "\\s":
          return constantFrom(...spaceChars);
        case "\\S":
          return defaultChar().filter((c) => !safeHas(spaceCharsSet, c));
        case "\\b":
        case "\\B":
          throw new SError(`Meta character ${astNode.value} not implemented yet!`);
        case ".": {
          const forbiddenChars = flags.dotAll ? terminatorCharsSet : newLineAndTerminatorCharsSet;
          return defaultChar().filter((c) => !safeHas(forbiddenChars, c));
        }
      }
      if (astNode.symbol === void 0) throw new SError(`Unexpected undefined symbol received for non-meta Char! Received: ${stringify(astNode)}`);
      return constant(astNode.symbol);
    case "Repetition": {
      const node2 = toMatchingArbitrary(astNode.expression, constraints, flags);
      switch (astNode.quantifier.kind) {
        case "*":
          return string({
            ...constraints,
            unit: node2
          });
        case "+":
          return string({
            ...constraints,
            minLength: 1,
            unit: node2
          });
        case "?":
          return string({
            ...constraints,
            minLength: 0,
            maxLength: 1,
            unit: node2
          });
        case "Range":
          return string({
            ...constraints,
            minLength: astNode.quantifier.from,
            maxLength: astNode.quantifier.to,
            unit: node2
          });
        default:
          throw raiseUnsupportedASTNode(astNode.quantifier);
      }
    }
    case "Quantifier":
      throw new SError(`Wrongly defined AST tree, Quantifier nodes not supposed to be scanned!`);
    case "Alternative": {
      const childrenArbitraries = [];
      let pendingAggregatedValue = "";
      for (const n2 of astNode.expressions) if (n2.type === "Char" && n2.kind !== "meta" && n2.symbol !== void 0) pendingAggregatedValue += n2.symbol;
      else if (flags.multiline || n2.type !== "Assertion" || n2.kind !== "^" && n2.kind !== "$") {
        if (pendingAggregatedValue !== "") {
          safePush(childrenArbitraries, constant(pendingAggregatedValue));
          pendingAggregatedValue = "";
        }
        safePush(childrenArbitraries, toMatchingArbitrary(n2, constraints, flags));
      }
      if (pendingAggregatedValue !== "") safePush(childrenArbitraries, constant(pendingAggregatedValue));
      if (childrenArbitraries.length === 0) return constant("");
      if (childrenArbitraries.length === 1) return childrenArbitraries[0];
      return tuple(...childrenArbitraries).map((vs) => safeJoin(vs, ""));
    }
    case "CharacterClass":
      if (astNode.negative) {
        const childrenArbitraries = safeMap(astNode.expressions, (n2) => toMatchingArbitrary(n2, constraints, flags));
        return defaultChar().filter((c) => safeEvery(childrenArbitraries, (arb) => !arb.canShrinkWithoutContext(c)));
      }
      return oneof(...safeMap(astNode.expressions, (n2) => toMatchingArbitrary(n2, constraints, flags)));
    case "ClassRange": {
      const min = astNode.from.codePoint;
      const max = astNode.to.codePoint;
      return integer({
        min,
        max
      }).map((n2) => safeStringFromCodePoint(n2), (c) => {
        if (typeof c !== "string") throw new SError("Invalid type");
        if ([...c].length !== 1) throw new SError("Invalid length");
        return safeCharCodeAt(c, 0);
      });
    }
    case "Group":
      return toMatchingArbitrary(astNode.expression, constraints, flags);
    case "Disjunction": {
      const stack = [astNode.left, astNode.right];
      const branches = [];
      for (let i = 0; i !== stack.length; ++i) {
        const node2 = stack[i];
        if (node2 === null) safePush(branches, constant(""));
        else if (node2.type === "Disjunction") {
          safePush(stack, node2.left);
          safePush(stack, node2.right);
        } else safePush(branches, toMatchingArbitrary(node2, constraints, flags));
      }
      return oneof(...branches);
    }
    case "Assertion":
      if (astNode.kind === "^" || astNode.kind === "$") {
        if (flags.multiline) {
          if (astNode.kind === "^") return oneof(constant(""), tuple(string({ unit: defaultChar() }), constantFrom(...newLineChars)).map((t) => `${t[0]}${t[1]}`, (value) => {
            if (typeof value !== "string" || value.length === 0) throw new SError("Invalid type");
            return [safeSubstring(value, 0, value.length - 1), value[value.length - 1]];
          }));
          else return oneof(constant(""), tuple(constantFrom(...newLineChars), string({ unit: defaultChar() })).map((t) => `${t[0]}${t[1]}`, (value) => {
            if (typeof value !== "string" || value.length === 0) throw new SError("Invalid type");
            return [value[0], safeSubstring(value, 1)];
          }));
        }
        return constant("");
      }
      throw new SError(`Assertions of kind ${astNode.kind} not implemented yet!`);
    case "Backreference":
      throw new SError(`Backreference nodes not implemented yet!`);
    case "UnicodeProperty":
      return unicodePropertyArbitrary(astNode);
    default:
      throw raiseUnsupportedASTNode(astNode);
  }
}
function stringMatching(regex, constraints = {}) {
  for (const flag of regex.flags) if (flag !== "d" && flag !== "g" && flag !== "m" && flag !== "s" && flag !== "u") throw new SError(`Unable to use "stringMatching" against a regex using the flag ${flag}`);
  const maxLength = constraints.maxLength;
  const sanitizedConstraints = {
    size: constraints.size,
    maxLength
  };
  const flags = {
    multiline: regex.multiline,
    dotAll: regex.dotAll
  };
  let regexRootToken = addMissingDotStar(tokenizeRegex(regex));
  if (maxLength !== void 0) regexRootToken = clampRegexAst(regexRootToken, maxLength);
  const baseArbitrary = toMatchingArbitrary(regexRootToken, sanitizedConstraints, flags);
  if (maxLength !== void 0) return baseArbitrary.filter((s) => [...s].length <= maxLength);
  return baseArbitrary;
}
var safePerformanceNow = typeof performance !== "undefined" ? performance.now.bind(performance) : Date.now.bind(Date);

// src/core/explore/samples.ts
function samplesOf(pattern, count, seed) {
  try {
    const fits2 = stringMatching(new RegExp(`^(?:${pattern.replace(/^\^|\$$/g, "")})$`), {
      size: "xsmall"
    });
    return [...new Set(sample(fits2, { numRuns: count * 4, seed }))].filter((text3) => /^[\x20-\x7e]+$/.test(text3) && text3.trim() !== "").slice(0, count);
  } catch {
    return [];
  }
}

// src/core/form/formats.ts
var EMAIL = /^[a-zA-Z0-9.!#$%&'*+/=?^_`{|}~-]+@[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?(?:\.[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?)*$/;
function isEmail(text3) {
  return EMAIL.test(text3);
}
var DATE = /^(\d{4})-(\d{2})-(\d{2})$/;
function isDate(text3) {
  const match = DATE.exec(text3);
  if (match === null) return false;
  const [year, month, day] = [Number(match[1]), Number(match[2]), Number(match[3])];
  return year >= 1 && month >= 1 && month <= 12 && day >= 1 && day <= daysIn(year, month);
}
function isTime(text3) {
  return /^(?:[01]\d|2[0-3]):[0-5]\d$/.test(text3);
}
var DATE_TIME = /^(\d{4}-\d{2}-\d{2})T(?:[01]\d|2[0-3]):[0-5]\d:[0-5]\d(?:\.\d{1,9})?(?:Z|[+-](?:[01]\d|2[0-3]):[0-5]\d)$/;
function isDateTime(text3) {
  const match = DATE_TIME.exec(text3);
  return match !== null && isDate(match[1]);
}
function daysIn(year, month) {
  if (month === 2) return year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0) ? 29 : 28;
  return month === 4 || month === 6 || month === 9 || month === 11 ? 30 : 31;
}

// src/core/form/kinds/date.ts
var date = {
  accept(offered2) {
    if (typeof offered2 === "string" && isDate(offered2)) return { ok: true, value: offered2 };
    return { ok: false, takes: "a date spelled YYYY-MM-DD" };
  },
  check(value, field3) {
    const day = value;
    if (field3.min !== void 0 && day < field3.min)
      return { code: "rangeUnderflow", says: `Not before ${field3.min}.` };
    if (field3.max !== void 0 && day > field3.max)
      return { code: "rangeOverflow", says: `Not after ${field3.max}.` };
    return null;
  },
  type: () => "string"
};

// src/core/form/kinds/keys.ts
function listed(options) {
  if (options.length === 0) return "one of its keys, but it has no options";
  const keys = options.slice(0, 8).map((option2) => JSON.stringify(option2.key));
  const more = options.length - keys.length;
  return `one of the keys ${keys.join(", ")}${more > 0 ? ` and ${more} more` : ""}`;
}
function meant(offered2, options) {
  const option2 = options.find((o) => o.label === offered2);
  return option2 === void 0 ? {} : { help: `That is a label; its key is ${JSON.stringify(option2.key)}.` };
}
var choice = {
  accept(offered2, field3, around) {
    const known2 = [...field3.options, ...around.options ?? []];
    if (typeof offered2 === "string" && known2.some((option2) => option2.key === offered2))
      return { ok: true, value: offered2 };
    return { ok: false, takes: listed(around.options ?? field3.options), ...meant(offered2, known2) };
  },
  check: () => null,
  type: (field3) => field3.options.map((option2) => JSON.stringify(option2.key)).join(" | ") || "string"
};
var choices = {
  accept(offered2, field3, around) {
    const current = around.options ?? field3.options;
    const known2 = [...current, ...field3.options];
    if (!Array.isArray(offered2))
      return {
        ok: false,
        takes: `a list of its keys, such as [${JSON.stringify(field3.options[0]?.key ?? "key")}]`
      };
    const keys = /* @__PURE__ */ new Set();
    for (const key of offered2) {
      if (typeof key !== "string" || !known2.some((option2) => option2.key === key)) {
        return {
          ok: false,
          takes: `${listed(current)} each; ${inWords(key)} is none`,
          ...meant(key, known2)
        };
      }
      keys.add(key);
    }
    const order2 = [...new Set(known2.map((option2) => option2.key))];
    return { ok: true, value: order2.filter((key) => keys.has(key)) };
  },
  check(value, field3) {
    const { length } = value;
    if (field3.minCount !== void 0 && length < field3.minCount)
      return { code: "tooFew", says: `Choose at least ${field3.minCount}.` };
    if (field3.maxCount !== void 0 && length > field3.maxCount)
      return { code: "tooMany", says: `Choose at most ${field3.maxCount}.` };
    return null;
  },
  type: (field3) => `readonly (${field3.options.map((option2) => JSON.stringify(option2.key)).join(" | ") || "string"})[]`
};
var reference = {
  accept(offered2, field3, around) {
    const table = around.table(field3.table);
    if (typeof offered2 === "string" && table.find(offered2) !== null)
      return { ok: true, value: offered2 };
    return {
      ok: false,
      takes: `${listed(table.options)} of table ${field3.table}`,
      ...meant(offered2, table.options)
    };
  },
  check: () => null,
  type: (field3) => `Key<${JSON.stringify(field3.table)}>`
};

// src/core/limits.ts
var KIB = 1024;
var MIB = 1024 * KIB;
var SECOND = 1e3;
var DAY = 24 * 60 * 60 * SECOND;
var SCENARIOS_ON_SERVER = 60 * SECOND;
var WORKSPACE_FILE_BYTES = 64 * MIB;
var WORKSPACE_BYTES = 128 * MIB;
var SYNTAX_LEVELS = 1e3;
var REMOVED_WORKSPACE_KEPT = 30 * DAY;
var ROWS_PER_FIELD = 1e4;
var CHOSEN_FILE_BYTES = 10 * MIB;
var HALF_FILLED_KEPT = 30 * DAY;
var CLOCK_AHEAD = 60 * SECOND;
var RUNS_PER_STEP = 100;
var SUBMISSIONS_PER_STEP = 10;
var CALLS_WAITING = 1e3;
var SUBMIT_WAITS = 30 * SECOND;
var USUAL_DELAY = 300;
var SAID_CHARACTERS = 2e3;
var MACHINE_BYTES = 96 * MIB;
var MACHINE_STACK_BYTES = 128 * KIB;
var RUN_POLLS = 1200;
var PATTERN_POLLS = 250;
var SEARCH_SILENCE = 10 * SECOND;
var ENGINE_UNHEARD = 120 * SECOND;
var DETAILS_PER_RUN = 2e4;
var ASKED_IN_ALL = 5e3;
var LARGEST_INTEGER = 2 ** 31 - 1;
var LATEST_CLOCK = Date.UTC(9998, 11, 31);
var REQUEST_BYTES = 2 * MIB;
var TABLE_REQUEST_BYTES = 32 * MIB;
var ZIP_BYTES = 32 * MIB;
var LEAVING_BYTES = 60 * KIB;
var SUBMISSION_WAITS = 30 * SECOND;
var SUBMISSION_TAKES = 120 * SECOND;
var TASK_WAITS = 60 * SECOND;
var TASK_TAKES = 300 * SECOND;
var RECORDING_BY_SERVER_BYTES = 256 * KIB;
var RECORDING_BYTES = 8 * MIB;

// src/core/form/date-style.ts
var STYLES = {
  iso: { order: "ymd", separator: "-", looks: "YYYY-MM-DD" },
  dmy_points: { order: "dmy", separator: ".", looks: "DD.MM.YYYY" },
  dmy_slashes: { order: "dmy", separator: "/", looks: "DD/MM/YYYY" },
  mdy_slashes: { order: "mdy", separator: "/", looks: "MM/DD/YYYY" }
};
function showDate(date4, style) {
  if (!isDate(date4)) return date4;
  const [year, month, day] = date4.split("-");
  const { order: order2, separator } = STYLES[style];
  const parts = { ymd: [year, month, day], dmy: [day, month, year], mdy: [month, day, year] };
  return parts[order2].join(separator);
}

// src/core/form/reading.ts
function labelOf(key, { options: defined2 }, { options }) {
  return [...options ?? [], ...defined2].find((option2) => option2.key === key)?.label ?? key;
}
function moneyDecimals({ decimals }) {
  return decimals ?? 2;
}
function bytesInWords(size) {
  if (size < 1024) return `${size} bytes`;
  const kib = size / 1024;
  return kib < 1024 ? `${Math.round(kib)} KiB` : `${(kib / 1024).toFixed(1)} MiB`;
}
function momentInWords(moment, dates = "iso") {
  const [day, rest] = moment.split("T");
  const offset = /(?:Z|[+-]\d{2}:\d{2})$/.exec(rest)[0];
  return `${showDate(day, dates)} ${rest.slice(0, 5)} ${offset === "Z" ? "UTC" : offset}`;
}
function definedOptions(field3, table) {
  return field3.kind === "reference" ? table(field3.table).options : field3.options;
}

// src/core/form/kinds/file.ts
var isDigest = (offered2) => typeof offered2 === "string" && /^[0-9a-f]{64}$/.test(offered2);
var TAKES = "a list of files, each { name, size, type }";
function readFile(offered2) {
  if (typeof offered2 !== "object" || offered2 === null) return null;
  const { name: name2, size, type, digest } = offered2;
  if (typeof name2 !== "string" || name2 === "" || name2.length > 255 || typeof type !== "string")
    return null;
  if (typeof size !== "number" || !Number.isInteger(size) || size < 0) return null;
  if (digest === void 0 || digest === null) return { name: name2, size, type };
  return isDigest(digest) ? { name: name2, size, type, digest } : null;
}
var file = {
  accept(offered2) {
    if (!Array.isArray(offered2)) return { ok: false, takes: TAKES };
    const files = offered2.map(readFile);
    if (files.includes(null)) return { ok: false, takes: TAKES };
    return { ok: true, value: files };
  },
  check(value, field3) {
    const files = value;
    const most = field3.maxFiles ?? 1;
    if (files.length > most)
      return { code: "tooMany", says: most === 1 ? "One file at most." : `${most} files at most.` };
    const bytes = field3.maxBytes ?? CHOSEN_FILE_BYTES;
    const large = files.find(({ size }) => size > bytes);
    if (large !== void 0)
      return {
        code: "rangeOverflow",
        says: `${large.name} has ${bytesInWords(large.size)}; at most ${bytesInWords(bytes)}.`
      };
    const other = field3.types === void 0 ? void 0 : files.find(({ type }) => !field3.types.some((wanted) => isOfType(type, wanted)));
    if (other !== void 0)
      return {
        code: "typeMismatch",
        says: `${other.name} is not one of ${field3.types.join(", ")}.`
      };
    return null;
  },
  type: () => "readonly FileValue[]"
};
function isOfType(type, wanted) {
  return wanted.endsWith("/*") ? type.startsWith(wanted.slice(0, -1)) : type === wanted;
}

// src/core/counted.ts
function counted(count, one, many = `${one}s`) {
  return `${count} ${count === 1 ? one : many}`;
}

// src/core/form/round.ts
function toDecimal(x) {
  const [mantissa, power = "0"] = String(x).split("e");
  const [whole, fraction = ""] = mantissa.split(".");
  return { digits: BigInt(whole + fraction), exponent: Number(power) - fraction.length };
}
function round(x, places = 0) {
  if (!Number.isFinite(x)) return x;
  if (!Number.isInteger(places)) throw new RangeError("round: places must be a whole number");
  const { digits, exponent } = toDecimal(x);
  const drop = -exponent - places;
  if (drop <= 0) return x + 0 === 0 ? 0 : x;
  const size = digits < 0n ? -digits : digits;
  if (drop > size.toString().length) return 0;
  const unit = 10n ** BigInt(drop);
  const rounded = (size + unit / 2n) / unit;
  const result = Number(`${digits < 0n ? "-" : ""}${rounded}e${-places}`);
  return result === 0 ? 0 : result;
}
function onStep(value, step, base) {
  const [v, s, b] = [toDecimal(value), toDecimal(step), toDecimal(base)];
  const low = Math.min(v.exponent, s.exponent, b.exponent);
  if (Math.max(v.exponent, s.exponent, b.exponent) - low > 400) return true;
  const scale = (d) => d.digits * 10n ** BigInt(d.exponent - low);
  return (scale(v) - scale(b)) % scale(s) === 0n;
}

// src/core/form/traits.ts
var LINE = { column: "text", isList: false, holdsKeys: false, isNumber: false };
var NUMERIC = { ...LINE, column: "number", isNumber: true, spelling: "number" };
var FORMATS = {
  email: "e-mail address",
  url: "web address",
  phone: "telephone number as of E.164",
  iban: "IBAN",
  imo: "IMO number",
  container: "container number as of ISO 6346"
};
var TRAITS = {
  text: {
    ...LINE,
    label: "Text",
    inWords: ({ format }) => format === void 0 ? "text" : FORMATS[format],
    read: (value) => String(value),
    spelling: "text",
    narrowed: "text"
  },
  number: {
    ...NUMERIC,
    label: "Number",
    inWords: ({ unit }) => unit === void 0 ? "number" : `number in ${unit}`,
    read(value, { decimals, unit }) {
      const shown2 = decimals === void 0 ? String(value) : round(value, decimals).toFixed(decimals);
      return unit === void 0 ? shown2 : `${shown2} ${unit}`;
    },
    narrowed: "range"
  },
  money: {
    ...NUMERIC,
    label: "Money",
    inWords: ({ currency }) => currency === void 0 ? "money" : `money in ${currency}`,
    read(value, field3) {
      const shown2 = value.toFixed(moneyDecimals(field3));
      return field3.currency === void 0 ? shown2 : `${shown2} ${field3.currency}`;
    },
    narrowed: "range"
  },
  date: {
    ...LINE,
    label: "Date",
    inWords: () => "date, YYYY-MM-DD",
    read: (value, _, { dates = "iso" }) => showDate(String(value), dates),
    spelling: "text",
    column: "date",
    narrowed: "range"
  },
  time: {
    ...LINE,
    label: "Time",
    inWords: () => "time, HH:MM",
    read: (value) => String(value),
    spelling: "text",
    narrowed: "range"
  },
  datetime: {
    ...LINE,
    label: "Date and time",
    inWords: () => "date and time, as 2031-05-02T09:00:00Z",
    read: (value, _, { dates = "iso" }) => momentInWords(value, dates),
    spelling: "text",
    narrowed: "range"
  },
  yes_no: {
    ...LINE,
    label: "Yes or no",
    inWords: () => "yes or no; null until answered",
    read: (value) => value === true ? "Yes" : "No",
    spelling: "yes or no",
    column: "yes_no",
    narrowed: "option"
  },
  choice: {
    ...LINE,
    label: "Choice",
    inWords: () => "choice",
    read: (value, field3, around) => labelOf(String(value), field3, around),
    spelling: "text",
    holdsKeys: true,
    narrowed: "option"
  },
  choices: {
    ...LINE,
    label: "Several choices",
    inWords: () => "choices: a list of keys",
    read: (value, field3, around) => value.map((key) => labelOf(key, field3, around)).join(", "),
    spelling: "keys",
    column: null,
    isList: true,
    holdsKeys: true,
    narrowed: "option"
  },
  reference: {
    ...LINE,
    label: "Reference",
    inWords: ({ table }) => `key of a row of ${table}`,
    read(value, field3, around) {
      const table = around.table(field3.table);
      const row2 = table.find(String(value));
      return row2 === null ? String(value) : table.optionOf(row2).label;
    },
    spelling: "text",
    holdsKeys: true,
    narrowed: "option"
  },
  file: {
    ...LINE,
    label: "File",
    inWords: () => "files: a list of name, size and type",
    read: (value) => value.map(({ name: name2, size }) => `${name2} (${bytesInWords(size)})`).join(", "),
    spelling: "json",
    column: null,
    isList: true,
    narrowed: null
  },
  rows: {
    ...LINE,
    label: "Rows",
    inWords: ({ fields }) => `rows of ${fields.map((cell) => cell.name).join(", ")}`,
    read: (value) => counted(value.length, "row"),
    spelling: "json",
    column: null,
    isList: true,
    narrowed: null
  }
};
function traitsOf(field3) {
  return TRAITS[field3.kind];
}
var KINDS2 = Object.keys(TRAITS);
var KIND_OPTIONS = KINDS2.map((key) => ({ key, label: TRAITS[key].label }));
function isList(field3) {
  return traitsOf(field3).isList;
}
function holdsKeys(field3) {
  return traitsOf(field3).holdsKeys;
}
function isPicked(field3) {
  return traitsOf(field3).narrowed === "option";
}
var NOTHING = Object.freeze([]);
function emptyOf(field3) {
  return isList(field3) ? NOTHING : null;
}
function textOf(value, field3, around) {
  return isEmpty(value) ? "" : traitsOf(field3).read(value, field3, around);
}

// src/core/form/kinds/number.ts
function acceptNumber(offered2) {
  if (typeof offered2 !== "number" || !Number.isFinite(offered2))
    return { ok: false, takes: "a finite number" };
  return { ok: true, value: offered2 === 0 ? 0 : offered2 };
}
function checkRange(value, field3) {
  if (field3.min !== void 0 && value < field3.min)
    return { code: "rangeUnderflow", says: `At least ${field3.min}.` };
  if (field3.max !== void 0 && value > field3.max)
    return { code: "rangeOverflow", says: `At most ${field3.max}.` };
  return null;
}
var number = {
  accept: acceptNumber,
  check(value, field3) {
    const typed = value;
    const range = checkRange(typed, field3);
    if (range !== null) return range;
    if (field3.step !== void 0 && !onStep(typed, field3.step, field3.min ?? 0)) {
      return {
        code: "stepMismatch",
        says: `In steps of ${field3.step}${field3.min ? ` from ${field3.min}` : ""}.`
      };
    }
    return null;
  },
  type: () => "number"
};
var money = {
  accept(offered2, field3) {
    const number6 = acceptNumber(offered2);
    return number6.ok ? { ok: true, value: round(number6.value, moneyDecimals(field3)) } : number6;
  },
  check: (value, field3) => checkRange(value, field3),
  type: () => "number"
};

// src/core/form/kinds/rows.ts
function rowsKind(readCell) {
  return {
    accept(offered2, field3, around) {
      if (!Array.isArray(offered2)) return { ok: false, takes: "a list of rows" };
      if (offered2.length > ROWS_PER_FIELD)
        return { ok: false, takes: `at most ${ROWS_PER_FIELD} rows` };
      const rows3 = [];
      for (const [i, row2] of offered2.entries()) {
        const read2 = readRow(row2, field3, around, readCell);
        if (typeof read2 === "string")
          return { ok: false, takes: `rows of its own cells; in row ${i + 1} ${read2}` };
        rows3.push(read2);
      }
      return { ok: true, value: rows3 };
    },
    check(value, field3) {
      const { length } = value;
      if (length < (field3.minRows ?? 0))
        return { code: "tooFew", says: `At least ${counted(field3.minRows, "row")}.` };
      if (length > (field3.maxRows ?? ROWS_PER_FIELD))
        return {
          code: "tooMany",
          says: `At most ${counted(field3.maxRows ?? ROWS_PER_FIELD, "row")}.`
        };
      return null;
    },
    type: (field3) => `readonly Row_${field3.name}[]`
  };
}
function readRow(offered2, field3, around, readCell) {
  if (typeof offered2 !== "object" || offered2 === null || Array.isArray(offered2))
    return `stands ${inWords(offered2)}`;
  const given = offered2;
  const unknown2 = Object.keys(given).find(
    (name2) => !field3.fields.some((cell) => cell.name === name2)
  );
  if (unknown2 !== void 0)
    return `"${unknown2}" is no cell; there are ${field3.fields.map(({ name: name2 }) => name2).join(", ")}`;
  const row2 = {};
  for (const cell of field3.fields) {
    const offered3 = Object.hasOwn(given, cell.name) ? given[cell.name] : null;
    const accepted = readCell(offered3, cell, { ...around, options: null });
    if (!accepted.ok) return `${cell.name} is ${inWords(offered3)}, but takes ${accepted.takes}`;
    row2[cell.name] = accepted.value;
  }
  return row2;
}

// src/core/form/checks.ts
function asDigits(text3) {
  return text3.replace(/[A-Z]/g, (letter) => String(letter.charCodeAt(0) - 55));
}
function modulo(digits, by) {
  let rest = 0;
  for (const digit of digits) rest = (rest * 10 + Number(digit)) % by;
  return rest;
}
var COUNTRIES_BY_LENGTH = {
  15: "NO",
  16: "BE",
  18: "AX DK FI FK FO GL NL SD",
  19: "MK SI",
  20: "AT BA EE KZ LT LU MN XK",
  21: "CH HR LI LV",
  22: "BG BH CR DE GB GE IE ME RS VA",
  23: "AE GI IL IQ OM SO TL",
  24: "AD CZ ES MD PK RO SA SE SK TN VG",
  25: "LY PT ST",
  26: "IS TR",
  27: "BI DJ FR GF GP GR IT MC MF MQ MR NC PF PM RE SM TF WF YT",
  28: "AL AZ BY CY DO GT HN HU LB NI PL SV",
  29: "BR EG PS QA UA",
  30: "JO KW MU YE",
  31: "MT SC",
  32: "LC",
  33: "RU"
};
var IBAN_LENGTHS = new Map(
  Object.entries(COUNTRIES_BY_LENGTH).flatMap(
    ([length, countries]) => countries.split(" ").map((country) => [country, Number(length)])
  )
);
function iban(text3) {
  const plain = text3.replace(/ /g, "").toUpperCase();
  if (!/^[A-Z]{2}(?:0[2-9]|[1-8]\d|9[0-8])[A-Z0-9]{8,30}$/.test(plain)) return false;
  const length = IBAN_LENGTHS.get(plain.slice(0, 2));
  if (length !== void 0 && plain.length !== length) return false;
  return modulo(asDigits(plain.slice(4) + plain.slice(0, 4)), 97) === 1;
}
function luhn(text3) {
  const digits = text3.replace(/[ -]/g, "");
  if (!/^\d{2,}$/.test(digits)) return false;
  let sum = 0;
  for (let i = 0; i < digits.length; i++) {
    const digit = Number(digits[digits.length - 1 - i]);
    sum += i % 2 === 0 ? digit : digit > 4 ? digit * 2 - 9 : digit * 2;
  }
  return sum % 10 === 0;
}
function containerValue(character) {
  if (character >= "0" && character <= "9") return Number(character);
  const place = character.charCodeAt(0) - 65;
  return 10 + place + Math.floor((place + 9) / 10);
}
function container(text3) {
  const plain = text3.replace(/[ -]/g, "").toUpperCase();
  if (!/^[A-Z]{3}[UJZ]\d{7}$/.test(plain)) return false;
  let sum = 0;
  for (let i = 0; i < 10; i++) sum += containerValue(plain[i]) * 2 ** i;
  return sum % 11 % 10 === Number(plain[10]);
}
function imo(text3) {
  const match = /^(?:IMO ?)?(\d{7})$/i.exec(text3.trim());
  if (match === null) return false;
  const digits = match[1];
  let sum = 0;
  for (let i = 0; i < 6; i++) sum += Number(digits[i]) * (7 - i);
  return sum % 10 === Number(digits[6]);
}
function phone(text3) {
  return /^\+[1-9]\d{1,14}$/.test(text3.replace(/[ -]/g, ""));
}
var checks = {
  iban,
  luhn,
  container,
  imo,
  phone,
  email: isEmail
};
function fitsMask(text3, mask) {
  return text3.length === mask.length && [...mask].every((place, i) => fits(text3[i], place));
}
function fits(character, place) {
  if (place === "9") return /\d/.test(character);
  if (place === "A") return /[A-Z]/.test(character);
  if (place === "*") return /[A-Z0-9]/.test(character);
  return character === place;
}

// src/core/form/kinds/text.ts
var FORMATS2 = {
  email: { fits: checks.email, says: "This is not an e-mail address, such as name@example.org." },
  url: {
    // The valid absolute URLs of HTML, by the WHATWG URL standard.
    fits: (typed) => URL.canParse(typed),
    says: "This is not a full web address, such as https://example.org/page."
  },
  phone: {
    fits: checks.phone,
    says: "This is not an international number, such as +999 12 345 678."
  },
  iban: {
    fits: checks.iban,
    says: "This is not an IBAN: a letter or digit of it is wrong or missing."
  },
  imo: {
    fits: checks.imo,
    says: "This is not an IMO number: seven digits, the last a check digit."
  },
  container: {
    fits: checks.container,
    says: "This is not a container number: four letters, six digits and a check digit."
  }
};
var text = {
  accept(offered2) {
    if (typeof offered2 !== "string") return { ok: false, takes: "a text" };
    return { ok: true, value: offered2 === "" ? null : offered2 };
  },
  check(value, field3, fits2) {
    const typed = value;
    if (field3.format !== void 0 && !FORMATS2[field3.format].fits(typed)) {
      return { code: "typeMismatch", says: FORMATS2[field3.format].says };
    }
    if (field3.mask !== void 0 && !fitsMask(typed, field3.mask)) {
      return {
        code: "patternMismatch",
        says: field3.patternHelp ?? `This is spelled ${field3.mask}: 9 stands for a digit, A for a capital letter, * for either.`
      };
    }
    const spelled = field3.pattern === void 0 || fits2(field3.pattern, typed);
    if (spelled === null)
      return {
        code: "patternMismatch",
        says: `The pattern of ${field3.label} takes too long to check this text.`
      };
    if (!spelled)
      return {
        code: "patternMismatch",
        says: field3.patternHelp ?? "This is not in the form asked for."
      };
    if (field3.maxLength !== void 0 && typed.length > field3.maxLength) {
      return {
        code: "tooLong",
        says: `At most ${field3.maxLength} characters; these are ${typed.length}.`
      };
    }
    if (field3.minLength !== void 0 && typed.length < field3.minLength) {
      return {
        code: "tooShort",
        says: `At least ${field3.minLength} characters; these are ${typed.length}.`
      };
    }
    return null;
  },
  type: () => "string"
};

// src/core/form/kinds/time.ts
var minutes = (time4) => Number(time4.slice(0, 2)) * 60 + Number(time4.slice(3));
var time = {
  accept(offered2) {
    if (typeof offered2 === "string" && isTime(offered2)) return { ok: true, value: offered2 };
    return { ok: false, takes: "a time spelled HH:MM" };
  },
  check(value, field3) {
    const typed = value;
    if (field3.min !== void 0 && typed < field3.min)
      return { code: "rangeUnderflow", says: `Not before ${field3.min}.` };
    if (field3.max !== void 0 && typed > field3.max)
      return { code: "rangeOverflow", says: `Not after ${field3.max}.` };
    if (field3.step !== void 0 && (minutes(typed) - minutes(field3.min ?? "00:00")) % field3.step !== 0) {
      return {
        code: "stepMismatch",
        says: `Every ${field3.step} minutes${field3.min === void 0 ? "" : ` from ${field3.min}`}.`
      };
    }
    return null;
  },
  type: () => "string"
};
var datetime = {
  accept(offered2) {
    if (typeof offered2 === "string" && isDateTime(offered2)) return { ok: true, value: offered2 };
    return { ok: false, takes: "a date and time spelled as 2031-05-02T09:00:00Z (RFC 3339)" };
  },
  check(value, field3) {
    const moment = Date.parse(value);
    if (field3.min !== void 0 && moment < Date.parse(field3.min))
      return { code: "rangeUnderflow", says: `Not before ${momentInWords(field3.min)}.` };
    if (field3.max !== void 0 && moment > Date.parse(field3.max))
      return { code: "rangeOverflow", says: `Not after ${momentInWords(field3.max)}.` };
    return null;
  },
  type: () => "string"
};

// src/core/form/kinds/yes-no.ts
var yesNo = {
  accept(offered2) {
    return typeof offered2 === "boolean" ? { ok: true, value: offered2 } : { ok: false, takes: "yes or no (true or false)" };
  },
  check: () => null,
  type: () => "boolean"
};

// src/core/form/kinds/index.ts
var kinds = {
  text,
  number,
  money,
  date,
  time,
  datetime,
  yes_no: yesNo,
  choice,
  choices,
  reference,
  file,
  rows: rowsKind(accept)
};
function kindOf(field3) {
  return kinds[field3.kind];
}
function accept(offered2, field3, around) {
  if (offered2 === void 0 || offered2 === null) return { ok: true, value: emptyOf(field3) };
  return kindOf(field3).accept(offered2, field3, around);
}
function faultOf(value, field3, required2, fits2) {
  if (isEmpty(value)) {
    if (required2)
      return {
        code: "valueMissing",
        says: field3.kind === "rows" ? "At least one row is needed." : "This has to be filled in."
      };
    if (field3.kind !== "rows") return null;
  }
  return kindOf(field3).check(value, field3, fits2);
}

// src/core/explore/drivers.ts
var DAY2 = 24 * 60 * 60 * 1e3;
var MOST = 20;
var isForPeople = ({ scriptOnly }) => scriptOnly !== true;
function driversOf(ground, mentions) {
  return fieldsOf(ground.form).filter((field3) => field3.kind !== "rows" && isForPeople(field3)).map((field3) => ({
    address: field3.name,
    field: field3,
    values: valuesOf(field3, ground, mentions)
  }));
}
function rowsDriversOf(ground, mentions) {
  return fieldsOf(ground.form).filter((field3) => field3.kind === "rows").map((field3) => ({
    name: field3.name,
    cells: cellsOf(field3).filter((cell) => isForPeople(cell) && cell.locked !== true).map((cell) => ({
      address: cell.name,
      field: cell,
      values: valuesOf(cell, ground, mentions)
    }))
  }));
}
function isValid(field3, value) {
  const fits2 = (pattern, text3) => new RegExp(`^(?:${pattern})$`, "u").test(text3);
  return !isEmpty(value) && faultOf(value, field3, false, fits2) === null;
}
function valuesOf(field3, ground, mentions) {
  return [...filledValues(field3, ground, mentions), emptyOf(field3)];
}
function filledValues(field3, ground, mentions) {
  switch (field3.kind) {
    case "yes_no":
      return [true, false];
    case "choice":
      return field3.options.map(({ key }) => key);
    case "choices":
      return severalOf(field3.options.map(({ key }) => key));
    case "reference":
      return rowsOf(field3, ground, mentions);
    case "number":
    case "money":
      return numbersFor(field3, ground, mentions);
    case "date":
      return datesFor(field3, ground, mentions);
    case "time":
      return ["09:00", "14:30", ...mentions.times, "00:00", "23:45"];
    case "datetime":
      return [0, 1, -1, ...unitsIn(mentions)].map((days2) => `${dayAt(ground.clock + days2 * DAY2)}T10:15:00Z`).slice(0, MOST);
    case "text":
      return textsFor(field3, ground, mentions);
    case "file": {
      const type = field3.types?.[0]?.replace("*", "png") ?? "application/pdf";
      return [[{ name: "papers.pdf", size: 1e3, type }]];
    }
    case "rows":
      return [];
  }
}
function severalOf(keys) {
  const pairs = keys.length > 2 ? [keys.slice(0, 2), keys.slice(1, 3)] : [];
  return [...keys.slice(0, 6).map((key) => [key]), [...keys], ...pairs];
}
function rowsOf({ table: name2 }, { tables }, { names, texts, numbers }) {
  const table = tables.find((one) => one.name === name2);
  if (table === void 0) return [];
  const met = /* @__PURE__ */ new Set();
  const first = [];
  const rest = [];
  for (const row2 of table.rows) {
    const read2 = Object.entries(row2).filter(
      ([column, value]) => column !== table.key && names.includes(column) && (typeof value !== "string" || texts.includes(value))
    ).map(([column, value]) => [
      column,
      typeof value === "number" ? numbers.filter((n2) => value >= n2).length : value
    ]);
    const combination = JSON.stringify(read2);
    (met.has(combination) ? rest : first).push(String(row2[table.key]));
    met.add(combination);
  }
  return [...first.slice(0, 8), ...rest.slice(0, Math.max(0, 3 - first.length))];
}
function numbersFor({ kind, min, max, decimals, step }, { tables }, { names, numbers }) {
  const found2 = /* @__PURE__ */ new Set();
  const add = (...some) => {
    for (const n2 of some) if (n2 !== void 0 && Math.abs(n2) < 1e9) found2.add(n2);
  };
  add(3, min, max, 0);
  for (const n2 of numbers) if (n2 > 0) add(n2, n2 + 1, n2 - 1);
  const ofTables = new Set(
    tables.flatMap(
      ({ rows: rows3 }) => rows3.flatMap(
        (row2) => Object.entries(row2).flatMap(
          ([column, value]) => typeof value === "number" && names.includes(column) ? [value] : []
        )
      )
    )
  );
  for (const n2 of [...ofTables].slice(0, 4)) add(n2, n2 + 1, n2 - 1);
  add(1, 40, 5e3);
  const first = [...found2].slice(0, MOST - 5);
  const beyond = [
    ...max === void 0 ? [] : [max + 1],
    ...min === void 0 ? [-1] : [min - 1]
  ];
  const fractions = kind === "money" || (decimals ?? 0) > 0 || (step ?? 1) < 1 ? [2.01, 0.1] : [];
  return [.../* @__PURE__ */ new Set([...first, ...fractions, 5e3, ...beyond])];
}
function unitsIn({ numbers }) {
  return numbers.filter((n2) => Number.isInteger(n2) && n2 > 1 && n2 < 2e3).flatMap((n2) => [n2, -n2]);
}
function datesFor({ min, max }, { clock }, mentions) {
  const days2 = [
    ...mentions.asks.month ? [60, 120, 180, 240, 300] : [],
    ...[10, -10, 1, -1, 400, -400, 35, -35, 95, -190, 3],
    ...unitsIn(mentions).flatMap((n2) => [n2, n2 + Math.sign(n2)])
  ];
  const found2 = /* @__PURE__ */ new Set([dayAt(clock)]);
  for (const named of mentions.dates)
    for (const by of [0, -1, 1]) found2.add(dayAt(Date.parse(named) + by * DAY2));
  for (const by of days2) found2.add(dayAt(clock + by * DAY2));
  for (const limit of [min, max]) if (limit !== void 0) found2.add(limit);
  return [...found2].slice(0, MOST);
}
var dayAt = (moment) => new Date(moment).toISOString().slice(0, 10);
function textsFor(field3, ground, mentions) {
  const { pattern, maxLength = Infinity } = field3;
  const found2 = /* @__PURE__ */ new Set();
  const add = (...some) => {
    for (const text3 of some) if (text3.length <= 60) found2.add(text3);
  };
  if (pattern === void 0) add("Quay 4");
  else add(...samplesOf(pattern, 2, 1));
  if (field3.format !== void 0) add(...SAMPLES[field3.format]);
  if (mentions.asks.length) {
    for (const n2 of mentions.numbers)
      if (n2 > 3 && n2 < 1e3 && n2 < maxLength) found2.add(`${"Long text ".repeat(100).slice(0, n2)}x`);
  }
  add(...keysOfServices(ground).filter((key) => pattern === void 0 || isValid(field3, key)));
  for (const one of mentions.patterns) add(...samplesOf(one, 2, 1));
  if (pattern === void 0) {
    for (const text3 of mentions.texts) if (text3.length < 12) add(text3, `${text3}17`);
  }
  add("ab 12", "no match", "A text of more than forty characters, as some are".slice(0, maxLength));
  return [...[...found2].slice(0, 14), " "];
}
var SAMPLES = {
  email: ["office@port.example"],
  url: ["https://port.example/"],
  phone: ["+4712345678"],
  iban: ["GB29 NWBK 6016 1331 9268 19"],
  imo: ["9074729"],
  container: ["CSQU3054383"]
};
function keysOfServices({ services, tables }) {
  return services.flatMap(
    ({ functions }) => Object.values(functions).flatMap(({ answers: answers2 }) => {
      if (answers2.from !== "table") return [];
      const table = tables.find(({ name: name2 }) => name2 === answers2.table);
      return Object.keys(answers2.where).flatMap(
        (column) => (table?.rows.slice(0, 4) ?? []).flatMap((row2) => {
          const value = row2[column];
          return typeof value === "string" ? [value] : [];
        })
      );
    })
  );
}
function someOf({ field: field3, values }, count) {
  return values.filter((value) => !equal(value, emptyOf(field3))).slice(0, count);
}
function validOf({ field: field3, values }) {
  return values.filter((value) => isValid(field3, value));
}

// src/core/random.ts
var nextState = (state) => state + 1831565813 >>> 0;
function numberAt(state) {
  let mixed = Math.imul(state ^ state >>> 15, state | 1);
  mixed ^= mixed + Math.imul(mixed ^ mixed >>> 7, mixed | 61);
  return ((mixed ^ mixed >>> 14) >>> 0) / 2 ** 32;
}
function randomFrom(seed) {
  let state = seed >>> 0;
  return () => numberAt(state = nextState(state));
}

// src/core/explore/covered.ts
var Covered = class {
  lines = /* @__PURE__ */ new Set();
  onScreen = /* @__PURE__ */ new Set();
  /** Keys that were offered, by field; `all` where the definition's options held. */
  offered = /* @__PURE__ */ new Map();
  /** Aspects that anybody ever spoke of, as `part.aspect`. */
  said = /* @__PURE__ */ new Set();
  saidShown = /* @__PURE__ */ new Set();
  written = /* @__PURE__ */ new Set();
  conditions = /* @__PURE__ */ new Map();
  inVain = /* @__PURE__ */ new Map();
  /** States by what people meet; new ones tell whether going on is worth it. */
  states = /* @__PURE__ */ new Set();
  values = /* @__PURE__ */ new Set();
  /** Parts whose values one run asks together, so that their order may matter; names in alphabetical order. */
  together = /* @__PURE__ */ new Map();
  /** By how much a line changed a number that it had read. */
  #changes = /* @__PURE__ */ new Map();
  /** Whether a line adds what was entered to a number, and not the same each time. */
  addsEntered({ behaviour, line: line2, part }) {
    return (this.#changes.get(`${behaviour}:${line2} ${part}`)?.size ?? 0) >= 3;
  }
  #noteChange({ behaviour, line: line2, part, from, to, reads }) {
    if (typeof to !== "number" || !reads.includes(`${part}.value`)) return;
    const name2 = `${behaviour}:${line2} ${part}`;
    const changes = this.#changes.get(name2) ?? /* @__PURE__ */ new Set();
    changes.add(to - (typeof from === "number" ? from : 0));
    this.#changes.set(name2, changes);
  }
  /** How often another key was tried, and whether it ever made a difference. */
  influences = /* @__PURE__ */ new Map();
  noteInfluence(influence, differs) {
    const { from, part, behaviour, line: line2 } = influence;
    const name2 = `${from} ${part} ${behaviour}:${line2}`;
    const known2 = this.influences.get(name2) ?? { ...influence, tried: 0, differs: false };
    known2.tried++;
    known2.differs ||= differs;
    this.influences.set(name2, known2);
  }
  /** Parts that could be changed by somebody in a record, as `person record part`. */
  #open = /* @__PURE__ */ new Set();
  /** Whether whoever opened a session could ever change a part in that record. */
  wasOpen({ opening }, part) {
    return this.#open.has(openedAs(opening, part));
  }
  note(ran, runs) {
    for (const seen2 of [ran.opened.parts, ran.seen.parts])
      for (const [name2, part] of Object.entries(seen2)) {
        if (!part.onScreen) continue;
        this.onScreen.add(name2);
        if (part.editable) this.#open.add(openedAs(ran.opening, name2));
        if (part.sort !== "field") continue;
        const offered2 = this.offered.get(name2) ?? /* @__PURE__ */ new Set();
        this.offered.set(name2, offered2);
        for (const key of part.options?.map((option2) => option2.key) ?? ["all"]) offered2.add(key);
      }
    for (const step of ran.steps)
      if ("set" in step) this.values.add(`${columnOf(step.set)} ${JSON.stringify(step.to)}`);
    for (const run2 of runs) {
      for (const [line2] of run2.lines) this.lines.add(`${run2.behaviour}:${line2}`);
      for (const { line: line2, what, value } of run2.values) {
        if (typeof value !== "boolean") continue;
        const name2 = `${run2.behaviour}:${line2}:${what}`;
        const tried = this.conditions.get(name2) ?? { count: 0, outcomes: /* @__PURE__ */ new Set() };
        tried.count++;
        tried.outcomes.add(String(value));
        this.conditions.set(name2, tried);
      }
    }
    for (const [a, b] of ran.together) this.together.set(`${a} ${b}`, [a, b]);
    for (const one of ran.said) {
      const { part, aspect: aspect2, to } = one;
      if (aspect2 === "value") this.#noteChange(one);
      this.#noteInVain(one);
      this.said.add(`${part}.${aspect2}`);
      if (aspect2 === "shown" && to === true) this.saidShown.add(part);
      if (aspect2 === "value") this.written.add(part);
    }
    this.states.add(
      JSON.stringify(
        Object.entries(ran.seen.parts).map(([name2, { onScreen, editable, required: required2 }]) => [
          name2,
          onScreen,
          editable,
          required2
        ])
      )
    );
  }
  /** A word that changes nothing for people, since it says what holds anyway, counts for neither. */
  #noteInVain({ behaviour, line: line2, part, aspect: aspect2, sort, covered }) {
    if (sort !== "handler" || aspect2 === "value") return;
    const name2 = `${behaviour}:${line2} ${part}.${aspect2}`;
    const known2 = this.inVain.get(name2) ?? { behaviour, line: line2, part, aspect: aspect2, met: 0, missed: 0 };
    if (covered) known2.missed++;
    else known2.met++;
    this.inVain.set(name2, known2);
  }
};
function openedAs({ person, record }, part) {
  return `${person.key} ${record?.id ?? ""} ${part}`;
}

// src/core/session/address.ts
var ROW = /^([a-z][a-z0-9_]*)\[(\d+)\](?:\.([a-z][a-z0-9_]*))?$/;
function readRowAddress(address) {
  const match = ROW.exec(address);
  return match === null ? null : { rows: match[1], place: Number(match[2]), cell: match[3] ?? null };
}

// src/core/wire/aspects.ts
var nothing = () => null;
var ASPECTS = {
  shown: {
    of: ["page", "section", "field", "button", "track", "row"],
    takes: "yes or no",
    base: ({ hidden: hidden2 }) => hidden2 !== true,
    stays: true,
    told: true,
    expected: true,
    became: { yes: "shown", no: "hidden" }
  },
  value: {
    of: ["field"],
    takes: "value",
    base: nothing,
    stays: false,
    told: true,
    expected: true,
    became: "special"
  },
  required: {
    of: ["field"],
    takes: "yes or no",
    base: ({ required: required2 }) => required2 === true,
    stays: true,
    told: true,
    expected: true,
    became: { yes: "required", no: "not required" }
  },
  locked: {
    of: ["form", "page", "section", "field", "button", "row"],
    takes: "yes or no",
    base: ({ locked }) => locked === true,
    stays: true,
    told: true,
    expected: true,
    became: { yes: "locked", no: "unlocked" }
  },
  options: {
    of: ["field"],
    takes: "options",
    base: nothing,
    stays: true,
    told: true,
    expected: true,
    became: "special"
  },
  hint: {
    of: ["field"],
    takes: "text or nothing",
    base: ({ hint }) => hint ?? null,
    stays: true,
    told: true,
    expected: true,
    became: "quoted"
  },
  warning: {
    of: ["field", "row"],
    takes: "text or nothing",
    base: ({ warning }) => warning ?? null,
    stays: true,
    told: true,
    expected: true,
    became: "quoted"
  },
  problem: {
    of: ["field", "row"],
    takes: "text or nothing",
    base: nothing,
    stays: true,
    told: true,
    expected: true,
    became: "quoted"
  },
  label: {
    of: ["button"],
    takes: "text",
    base: ({ label }) => label,
    stays: true,
    told: true,
    expected: true,
    became: "quoted"
  },
  stage: {
    of: ["track"],
    takes: "stage",
    base: ({ stage }) => stage ?? null,
    stays: true,
    told: true,
    expected: true,
    became: "quoted"
  },
  message: {
    of: ["form"],
    takes: "message",
    base: nothing,
    stays: false,
    told: false,
    expected: false,
    became: "quoted"
  },
  replaced: {
    of: ["form"],
    takes: "replacement",
    base: nothing,
    stays: false,
    told: false,
    expected: false,
    became: "special"
  }
};
var SAID = Object.keys(ASPECTS);
var entryOf = (name2) => ASPECTS[name2];
var isSaid = (name2) => Object.hasOwn(ASPECTS, name2);
var isToldName = (name2) => entryOf(name2).told;
var saidOf = (sort) => SAID.filter((name2) => entryOf(name2).of.includes(sort));
function basesBy(sort, definition) {
  return Object.fromEntries(saidOf(sort).map((name2) => [name2, entryOf(name2).base(definition)]));
}

// src/core/scenario/seen.ts
var bare = (from) => Object.assign(/* @__PURE__ */ Object.create(null), from);
var NOTHING_SEEN = {
  parts: bare({}),
  rows: bare({}),
  record: null,
  clock: 0,
  waiting: [],
  page: null,
  replaced: null,
  notice: null,
  failing: [],
  submit: null,
  changed: false
};
function seenAfter(before, answer) {
  let { parts } = before;
  const names = Object.keys(answer.changes);
  if (names.length > 0) {
    parts = bare(parts);
    for (const name2 of names)
      parts[name2] = { ...parts[name2], ...answer.changes[name2] };
  }
  const { record, clock, waiting, page, replaced, notice, failing, changed } = answer;
  return {
    parts,
    rows: rowsAfter(before.rows, answer.rows),
    record,
    clock,
    waiting,
    page,
    replaced,
    notice,
    failing,
    changed,
    submit: answer.submit ?? before.submit
  };
}
function rowsAfter(before, changes) {
  const names = Object.keys(changes);
  if (names.length === 0) return before;
  const after = bare(before);
  for (const name2 of names) {
    const change = changes[name2];
    const was = (change.anew ? null : before[name2]) ?? { order: [], byId: {} };
    const byId = { ...was.byId };
    for (const [id, row2] of Object.entries(change.rows)) byId[id] = rowAfter(byId[id], row2);
    if (change.order !== void 0) {
      const here = new Set(change.order);
      for (const id of Object.keys(byId)) if (!here.has(id)) delete byId[id];
    }
    after[name2] = { order: change.order ?? was.order, byId };
  }
  return after;
}
var NEW_ROW = { shown: true, locked: false, values: {}, cells: {} };
function rowAfter(before = NEW_ROW, change) {
  const cells2 = { ...before.cells };
  for (const [name2, cell] of Object.entries(change.cells ?? {}))
    cells2[name2] = { ...cells2[name2], ...cell };
  return { ...before, ...change, values: { ...before.values, ...change.values }, cells: cells2 };
}
var OF_CELL = saidOf("field").filter(isToldName);
function cellState(field3, row2, cell) {
  const said = row2.cells[cell.name] ?? {};
  const is = Object.fromEntries(
    OF_CELL.map((name2) => [name2, said[name2] ?? entryOf(name2).base(cell)])
  );
  return {
    ...is,
    sort: "field",
    onScreen: is.shown && row2.shown && field3.onScreen,
    editable: !is.locked && cell.scriptOnly !== true && !row2.locked && field3.editable,
    value: row2.values[cell.name] ?? emptyOf(cell),
    fault: said.fault ?? null,
    orphan: said.orphan ?? false
  };
}
function partSeen(seen2, form2, address) {
  const found2 = readRowAddress(address);
  if (found2 === null) return seen2.parts[address] && withRows(seen2, address);
  const rows3 = seen2.rows[found2.rows];
  const row2 = rows3?.byId[rows3.order[found2.place] ?? ""];
  const field3 = seen2.parts[found2.rows];
  if (row2 === void 0 || field3 === void 0) return void 0;
  if (found2.cell === null) {
    const { shown: shown2, locked, values, warning = null, problem = null } = row2;
    return {
      sort: "row",
      shown: shown2,
      onScreen: shown2 && field3.onScreen,
      locked,
      editable: !locked && field3.editable,
      warning,
      problem,
      value: values
    };
  }
  const definition = fieldsOf(form2).find((one) => one.name === found2.rows);
  const cell = definition && cellsOf(definition).find((one) => one.name === found2.cell);
  return cell && cellState(field3, row2, cell);
}
function withRows(seen2, name2) {
  const part = seen2.parts[name2];
  return seen2.rows[name2] === void 0 ? part : { ...part, value: rowValues(seen2, name2) };
}
function partsSeen(seen2, form2) {
  const parts = {};
  for (const name2 of Object.keys(seen2.parts)) parts[name2] = withRows(seen2, name2);
  for (const field3 of fieldsOf(form2)) {
    seen2.rows[field3.name]?.order.forEach((_, place) => {
      const addresses = [
        `${field3.name}[${place}]`,
        ...cellsOf(field3).map((cell) => `${field3.name}[${place}].${cell.name}`)
      ];
      for (const address of addresses) parts[address] = partSeen(seen2, form2, address);
    });
  }
  return parts;
}
function rowValues(seen2, name2) {
  const rows3 = seen2.rows[name2];
  return rows3 === void 0 ? [] : rows3.order.map((id) => rows3.byId[id].values);
}

// src/core/explore/said.ts
function saidOn(tape) {
  const runs = /* @__PURE__ */ new Map();
  const said = [];
  for (const entry of tape) {
    if (entry.type === "run") runs.set(entry.n, entry);
    if (entry.type !== "effect" || entry.by === "person" || entry.struck === true) continue;
    const run2 = entry.cause === null ? void 0 : runs.get(entry.cause);
    if (run2 === void 0) continue;
    said.push({
      behaviour: run2.behaviour,
      line: entry.line ?? run2.line,
      part: columnOf(entry.part),
      aspect: entry.aspect,
      from: entry.from,
      to: entry.to,
      sort: run2.sort,
      reads: run2.reads.map(({ part, aspect: aspect2 }) => `${columnOf(part)}.${aspect2}`),
      asked: run2.asked,
      run: entry.cause,
      tie: run2.line,
      covered: entry.covered === true
    });
  }
  return said;
}
var SAID_AS = {
  onScreen: "shown",
  editable: "locked",
  hiddenValue: "value"
};
function saidAbout(said, part, aspect2, containers) {
  const name2 = SAID_AS[aspect2] ?? aspect2;
  const parts = /* @__PURE__ */ new Set([columnOf(part)]);
  if (name2 === "shown" || name2 === "locked") {
    const whole = wholeOf(part);
    for (const one of [whole, ...containers.get(whole) ?? []]) parts.add(one);
  }
  return said.filter((one) => parts.has(one.part) && one.aspect === name2);
}

// src/core/explore/play.ts
var KEPT = 1e5;
var WAITS = 6;
function nameOf(opening) {
  const { person, record, launch, clock, zone, services, records } = opening;
  return JSON.stringify([
    person,
    record,
    launch,
    clock,
    zone,
    services,
    records?.map(({ id }) => id)
  ]);
}
var Player = class {
  constructor(form2, stage, onPlayed, mayGoOn) {
    this.form = form2;
    this.stage = stage;
    this.onPlayed = onPlayed;
    this.mayGoOn = mayGoOn;
  }
  form;
  stage;
  onPlayed;
  mayGoOn;
  sessions = 0;
  steps = 0;
  #kept = /* @__PURE__ */ new Map();
  #weight = 0;
  play(opening, steps, options = {}) {
    const name2 = `${nameOf(opening)}${JSON.stringify(steps)}${options.settle === false}`;
    const known2 = this.#kept.get(name2);
    if (known2 !== void 0) return known2;
    this.mayGoOn();
    const ran = this.#run(opening, steps, options.settle !== false);
    this.#weight += Object.keys(ran.parts).length + ran.said.length;
    if (this.#weight > KEPT) {
      this.#kept.clear();
      this.#weight = 0;
    }
    this.#kept.set(name2, ran);
    return ran;
  }
  #run(opening, steps, settle2) {
    this.sessions++;
    const first = this.stage.open(opening);
    const answers2 = [first];
    const opened = seenAfter(NOTHING_SEEN, first);
    let seen2 = opened;
    const done2 = [];
    const refused = [];
    const step = (one) => {
      this.steps++;
      const answer = this.stage.do(one);
      answers2.push(answer);
      done2.push(one);
      seen2 = seenAfter(seen2, answer);
      if (answer.refused !== null) refused.push(one);
    };
    const untilAnswered = () => {
      for (let i = 0; i < WAITS; i++) {
        const due = seen2.waiting.flatMap(({ calls }) => calls.map((call) => call.due));
        const last = Math.max(...due.filter((moment) => moment !== null));
        if (!Number.isFinite(last)) return;
        step({ wait: Math.max(0, last - seen2.clock) + 1 });
      }
    };
    if (settle2 && steps.length === 0) untilAnswered();
    for (const { hold, ...one } of steps) {
      step(one);
      if (settle2 && hold !== true) untilAnswered();
    }
    if (settle2) untilAnswered();
    const told = whatHappened(answers2);
    const ran = {
      opening,
      steps: done2,
      opened,
      seen: seen2,
      parts: partsSeen(seen2, this.form),
      refused,
      failures: answers2.flatMap(({ errors }) => errors),
      messages: answers2.flatMap(({ messages }) => messages.map(({ text: text3 }) => text3)),
      ...told,
      submitRuns: answers2.at(-1).tape.filter((entry) => entry.type === "run").filter(({ title }) => title === "submit")
    };
    this.onPlayed(
      ran,
      answers2.flatMap(({ tape }) => tape.filter((entry) => entry.type === "run"))
    );
    return ran;
  }
};
function whatHappened(answers2) {
  const said = [];
  const outdated2 = [];
  const conflicts2 = [];
  const together = /* @__PURE__ */ new Map();
  const waiting = /* @__PURE__ */ new Map();
  for (const { tape } of answers2) {
    const here = saidOn(tape);
    said.push(...here);
    const events = /* @__PURE__ */ new Map();
    for (const entry of tape) {
      if (entry.type === "event" && entry.part !== null) events.set(entry.n, columnOf(entry.part));
      if (entry.type === "run")
        for (const pair2 of askedTogether(entry, events)) together.set(pair2.join(" "), pair2);
      if (entry.type === "conflict")
        conflicts2.push({
          part: columnOf(entry.part),
          aspect: entry.aspect,
          between: entry.between
        });
      if (entry.type === "effect" && entry.by === "person")
        for (const { changed } of waiting.values()) changed.add(columnOf(entry.part));
      if (entry.type !== "run" || entry.sort !== "handler") continue;
      const tie = `${entry.behaviour}:${entry.line}`;
      const before = waiting.get(tie);
      const reads = new Map(
        entry.reads.filter(({ aspect: aspect2 }) => aspect2 === "value").map(({ part, value }) => [columnOf(part), value])
      );
      if (before !== void 0) {
        const mine = here.filter(({ run: run2 }) => run2 === entry.n);
        const old = [...before.reads.keys()].find(
          (part) => before.changed.has(part) && !reads.has(part)
        );
        if (old !== void 0 && mine.length > 0) outdated2.push({ part: old, said: mine });
      }
      if (entry.outcome === "open")
        waiting.set(tie, {
          reads: new Map([...before?.reads ?? [], ...reads]),
          changed: before?.changed ?? /* @__PURE__ */ new Set()
        });
      else waiting.delete(tie);
    }
  }
  return { said, outdated: outdated2, conflicts: conflicts2, together: [...together.values()] };
}
var TOGETHER = 6;
function askedTogether({ reads, cause }, events) {
  const trigger = cause === null ? void 0 : events.get(cause);
  const parts = new Set(trigger === void 0 ? [] : [trigger]);
  for (const { part, aspect: aspect2 } of reads) if (aspect2 === "value") parts.add(columnOf(part));
  const names = [...parts].slice(0, TOGETHER).toSorted();
  return names.flatMap((a, i) => names.slice(i + 1).map((b) => [a, b]));
}

// src/core/explore/predicates/failures.ts
function failures(search2, ran) {
  for (const { code, behaviour, line: line2, says } of ran.failures) {
    if (code === "service") continue;
    search2.report(
      code === "cycle" ? "cycle" : "throws",
      "wrong",
      { part: `${behaviour}:${line2}`, aspect: code },
      [{ behaviour, line: line2 }],
      says,
      ran
    );
  }
}

// src/core/explore/state.ts
var ASPECTS2 = [
  "editable",
  "required",
  "options",
  "hint",
  "warning",
  "problem",
  "label",
  "stage",
  "value"
];
function differencesOf(form2, one, other) {
  return differencesBetween(form2, one.parts, other.parts, one.seen, other.seen);
}
function differencesBetween(form2, one, other, seenOne, seenOther) {
  const differences = [];
  const add = (part, aspect2, a, b) => differences.push({ part, aspect: aspect2, one: a, other: b });
  for (const name2 of /* @__PURE__ */ new Set([...Object.keys(one), ...Object.keys(other)])) {
    const [a, b] = [one[name2], other[name2]];
    if (a === void 0 || b === void 0) {
      const there = a ?? b;
      if (there.onScreen && !name2.includes("."))
        add(name2, "exists", a !== void 0, b !== void 0);
      continue;
    }
    if (!a.onScreen && !b.onScreen) {
      if (isSubmittedHidden(form2, name2, a) && !equal(a.value ?? null, b.value ?? null))
        add(name2, "hiddenValue", a.value ?? null, b.value ?? null);
      continue;
    }
    if (a.onScreen !== b.onScreen) {
      add(name2, "onScreen", a.onScreen, b.onScreen);
      continue;
    }
    const isRows = a.sort === "row" || definitionOf(form2, name2)?.kind === "rows";
    for (const aspect2 of ASPECTS2) {
      if (aspect2 === "value" && isRows) continue;
      const [was, is] = [shown(a, aspect2), shown(b, aspect2)];
      if (!equal(was, is)) add(name2, aspect2, was, is);
    }
  }
  if (!equal(seenOne.replaced, seenOther.replaced))
    add("@form", "replaced", seenOne.replaced, seenOther.replaced);
  if (!equal(seenOne.notice, seenOther.notice))
    add("@form", "notice", seenOne.notice, seenOther.notice);
  return withoutNested(form2, differences);
}
function isSubmittedHidden(form2, name2, { sort }) {
  const field3 = definitionOf(form2, name2);
  return sort === "field" && field3 !== void 0 && field3.kind !== "rows" && (field3.whenHidden ?? "keep") === "keep";
}
function shown(part, aspect2) {
  if (aspect2 === "options") return part.options?.map(({ key }) => key) ?? null;
  return part[aspect2] ?? null;
}
function withoutNested(form2, differences) {
  if (differences.length < 2) return differences;
  const around = containersOf(form2);
  const all = new Set(differences.map(({ part, aspect: aspect2 }) => `${part}.${aspect2}`));
  return differences.filter(({ part, aspect: aspect2 }) => {
    if (aspect2 !== "onScreen" && aspect2 !== "editable") return true;
    const whole = wholeOf(part);
    const outside = [...whole === part ? [] : [whole], ...around.get(whole) ?? []];
    return !outside.some((name2) => all.has(`${name2}.${aspect2}`));
  });
}
function isUntouched(form2, part, value) {
  const field3 = definitionOf(form2, part);
  return isEmpty(value) || value === false || field3 !== void 0 && "default" in field3 && equal(value, field3.default ?? null);
}
function defaultOf(form2, part) {
  const field3 = definitionOf(form2, part);
  return field3 !== void 0 && "default" in field3 ? field3.default ?? null : null;
}

// src/core/explore/predicates/hidden-values.ts
function hiddenValues(search2, ran) {
  const entered = new Set(
    ran.steps.flatMap(
      (step) => "set" in step ? [wholeOf(step.set)] : "addRow" in step ? [step.addRow] : []
    )
  );
  for (const name2 of entered) {
    const part = ran.parts[name2];
    const field3 = definitionOf(search2.ground.form, name2);
    if (part === void 0 || part.onScreen || field3?.whenHidden !== void 0) continue;
    const value = part.value ?? null;
    const isNothing = field3?.kind === "rows" ? (ran.seen.rows[name2]?.order.length ?? 0) === 0 : isEmpty(value) || isUntouched(search2.ground.form, name2, value);
    const lines = search2.said(name2, "onScreen", ran);
    if (isNothing || lines.length === 0) continue;
    search2.report(
      "submits-hidden",
      "wrong",
      { part: name2, aspect: "hiddenValue" },
      lines,
      `${name2} is off screen and is saved with ${field3?.kind === "rows" ? "its rows" : JSON.stringify(value)}`,
      ran
    );
  }
}

// src/core/explore/predicates/invalid.ts
function invalid(search2, ran) {
  const { form: form2 } = search2.ground;
  const written = ran.said.filter(({ aspect: aspect2, to }) => aspect2 === "value" && !isEmpty(to));
  if (written.length === 0) return;
  const isSoundInput = ran.steps.every((step) => {
    if (!("set" in step)) return !("addRow" in step);
    const field3 = definitionOf(form2, step.set);
    return isEmpty(step.to) || field3 !== void 0 && isValid(field3, step.to);
  });
  if (!isSoundInput || ran.opening.record !== null) return;
  for (const said of written) {
    const field3 = definitionOf(form2, said.part);
    const now = ran.parts[said.part]?.value ?? null;
    if (field3 === void 0 || field3.kind === "rows" || isEmpty(now) || isValid(field3, now))
      continue;
    search2.report(
      "writes-invalid",
      "wrong",
      { part: said.part, aspect: "value" },
      [said],
      `${said.part}: a script writes ${JSON.stringify(now)}, which the definition refuses`,
      ran
    );
  }
}

// src/core/explore/predicates/orphaned.ts
function orphaned(search2, ran) {
  if (ran.opening.record === null) return;
  for (const [name2, { orphan, onScreen, value }] of Object.entries(ran.parts)) {
    if (orphan !== true || !onScreen || isEmpty(value ?? null)) continue;
    const field3 = definitionOf(search2.ground.form, name2);
    const isKnown = field3?.kind === "reference" || field3 !== void 0 && "options" in field3 && [value].flat().every((key) => field3.options.some((option2) => option2.key === key));
    if (isKnown)
      search2.report(
        "orphaned",
        "wrong",
        { part: name2, aspect: "options" },
        search2.said(name2, "options", ran),
        `${name2}: the saved value ${JSON.stringify(value)} is not among the options that are offered`,
        ran
      );
  }
}

// src/core/explore/predicates/outdated.ts
function outdated(search2, ran) {
  for (const { part, said } of ran.outdated)
    search2.report(
      "decided-before",
      "wrong",
      { part, aspect: "value" },
      said,
      `${part} was changed while a call was open; what is said after the answer (${said[0].part}, ${said[0].aspect}) goes by what it was before`,
      ran
    );
}

// src/core/explore/predicates/conflicts.ts
function conflicts(search2, ran) {
  for (const { part, aspect: aspect2, between } of ran.conflicts)
    search2.report(
      "conflict",
      "may",
      { part, aspect: aspect2 },
      search2.said(part, aspect2, ran),
      `${between.join(" and ")} say different things of ${part}`,
      ran
    );
}

// src/core/explore/predicates/stops.ts
function stops(search2, ran) {
  const { submit } = ran.seen;
  if (submit === null || submit.saved || !("submit" in (ran.steps.at(-1) ?? {}))) return;
  const lines = ran.submitRuns.flatMap(
    ({ behaviour, lines: ran_ }) => ran_.map(([line2]) => ({ behaviour, line: line2 }))
  );
  for (const { part, says } of submit.stops) {
    if (part !== null && ran.parts[part]?.onScreen === false)
      search2.report(
        "stopped-off-screen",
        "wrong",
        { part, aspect: "stop" },
        lines,
        `submitting is stopped at ${part}, which is off screen: ${says}`,
        ran
      );
    if (says.trim() === "")
      search2.report(
        "silent-stop",
        "wrong",
        { part: part ?? "@form", aspect: "stop" },
        lines,
        "submitting is stopped without a word",
        ran
      );
  }
}

// src/core/explore/predicates/texts.ts
var TEXTS = ["hint", "warning", "problem", "label"];
var JUNK = /\b(undefined|NaN|Infinity|null)\b|\[object |\d\.\d{9,}/;
var BINARY_ERROR = /\.\d*(0{6,}|9{6,})\d{0,3}$|e-/;
function junk(search2, ran) {
  const look = (part, aspect2, value) => {
    const isWrong = typeof value === "string" && JUNK.test(value);
    const isDoubtful = typeof value === "number" && definitionOf(search2.ground.form, part)?.kind === "number" && BINARY_ERROR.test(String(value));
    if (!isWrong && !isDoubtful) return;
    search2.report(
      "junk",
      isWrong ? "wrong" : "may",
      { part, aspect: aspect2 },
      search2.said(part, aspect2, ran),
      `${part}: the ${aspect2} reads ${JSON.stringify(value)}`,
      ran
    );
  };
  for (const [name2, part] of Object.entries(ran.parts)) {
    if (!part.onScreen) continue;
    for (const aspect2 of TEXTS) look(name2, aspect2, part[aspect2]);
    const isWritten = part.sort === "field" && ran.said.some((said) => said.part === columnOf(name2) && said.aspect === "value");
    if (isWritten) look(name2, "value", part.value);
  }
  for (const text3 of ran.messages) look("@form", "message", text3);
}

// src/core/explore/predicates/index.ts
var ALL = [failures, junk, orphaned, stops, outdated, conflicts, hiddenValues, invalid];
function inspect(search2, ran) {
  for (const look of ALL) look(search2, ran);
}

// src/core/explore/exploration.ts
var Enough = class extends Error {
};
var LINES = 8;
var Exploration = class {
  constructor(ground, mentions, stage, seed, mayGoOn) {
    this.ground = ground;
    this.mentions = mentions;
    this.random = randomFrom(seed);
    this.drivers = driversOf(ground, this.mentions);
    this.rowsDrivers = rowsDriversOf(ground, this.mentions);
    this.buttons = (ground.form.buttons ?? []).map(({ name: name2 }) => name2);
    this.containers = containersOf(ground.form);
    this.covered = new Covered();
    this.#player = new Player(
      ground.form,
      stage,
      (ran, runs) => this.#played(ran, runs),
      () => mayGoOn(this.sessions)
    );
  }
  ground;
  mentions;
  drivers;
  rowsDrivers;
  buttons;
  covered;
  containers;
  /** Records that submissions of the search would have saved. */
  saved = [];
  /** Stops that no way out was found of, by their part, with what is said of them. */
  deadEnds = /* @__PURE__ */ new Map();
  /** Fields over whose values scripts have written values of their own. */
  owned = /* @__PURE__ */ new Set();
  #found = /* @__PURE__ */ new Map();
  #player;
  random;
  get sessions() {
    return this.#player.sessions;
  }
  get steps() {
    return this.#player.steps;
  }
  get findings() {
    return [...this.#found.values()];
  }
  #played(ran, runs) {
    this.covered.note(ran, runs);
    this.#noteOwned(ran);
  }
  /** A script wrote over what a script had written: the field is its own, and nothing that a person typed there excuses it. */
  #noteOwned({ said }) {
    const written = /* @__PURE__ */ new Map();
    for (const { part, aspect: aspect2, from, to } of said) {
      if (aspect2 !== "value") continue;
      const before = written.get(part);
      if (before !== void 0 && from !== null && equal(before, from) && !equal(to, from))
        this.owned.add(part);
      written.set(part, to);
    }
  }
  /** Plays a session and looks at it by itself. */
  play(opening, steps) {
    const ran = this.#player.play(opening, steps);
    inspect(this, ran);
    return ran;
  }
  /** Plays a session that is only compared with. */
  quietly(opening, steps) {
    return this.#player.play(opening, steps);
  }
  report(kind, level, of, lines, says, one, other = null) {
    const key = keyOf({ kind, ...of });
    const before = this.#found.get(key);
    const way = wayOf(one);
    if (before !== void 0) {
      const isWorse = before.level === "may" && level === "wrong";
      const isShorter = way.steps.length < before.way.steps.length;
      if (!isWorse && (!isShorter || before.level === "wrong" && level === "may")) return;
    }
    const at = /* @__PURE__ */ new Map();
    for (const { behaviour, line: line2, tie } of lines)
      at.set(`${behaviour}:${line2}`, { behaviour, line: line2, ...tie === void 0 ? {} : { tie } });
    this.#found.set(key, {
      kind,
      level: before?.level === "wrong" ? "wrong" : level,
      ...of,
      lines: [...at.values()].slice(0, LINES),
      says,
      way,
      other: other === null ? null : wayOf(other)
    });
  }
  /** What scripts said of an aspect in some sessions. */
  said(part, aspect2, ...rans) {
    return rans.flatMap(({ said }) => saidAbout(said, part, aspect2, this.containers));
  }
  pick(from) {
    return from[Math.floor(this.random() * from.length)];
  }
  shuffled(list2) {
    return list2.map((one) => [this.random(), one]).sort(([a], [b]) => a - b).map(([, one]) => one);
  }
  /** Drivers in an order that is drawn, those first that scripts mention. */
  inOrder(drivers) {
    const isMentioned = ({ address }) => this.mentions.words.includes(address);
    return this.shuffled(drivers).sort((a, b) => Number(isMentioned(b)) - Number(isMentioned(a)));
  }
  /** The fields that can be set at the end of a session. */
  settable({ parts }) {
    return this.drivers.filter(({ address }) => isOpen(parts[address]));
  }
  /** A row as people add one, with values that the definition takes where it is to be good. */
  newRow({ name: name2, cells: cells2 }, good) {
    const given = cells2.filter(({ field: field3 }) => field3.required === true || this.random() < 0.8);
    const values = given.map(({ address, field: field3, values: all }) => {
      const some = good ? all.filter((value) => isValid(field3, value)) : all;
      return [address, this.pick(some.slice(0, 6)) ?? null];
    });
    return { addRow: name2, with: Object.fromEntries(values) };
  }
};
function wayOf({ opening, steps }) {
  return { opening, steps };
}
function isOpen(part) {
  return part !== void 0 && part.editable && part.onScreen;
}
function isOffered(part, value) {
  if (isEmpty(value) || part?.options == null) return true;
  const keys = part.options.map(({ key }) => key);
  return [value].flat().every((key) => keys.includes(String(key)));
}
function isSound({ refused, failures: failures2 }) {
  return refused.length === 0 && failures2.length === 0;
}
function valueIn({ parts }, address) {
  return parts[address]?.value ?? null;
}

// src/core/explore/never.ts
var CONDITIONS = 30;
var INFLUENCES = 8;
var IN_VAIN = 2;
function never(search2, start) {
  neverShown(search2, start);
  neverShows(search2, start);
  neverFilled(search2, start);
  neverOffered(search2, start);
  oneSided(search2, start);
  noDifference(search2, start);
}
function mentioned({ mentions }, part, aspect2) {
  return mentions.members.filter(
    (member) => member.part === part && member.aspect === aspect2 && member.written
  );
}
function neverShown(search2, start) {
  const { onScreen, said, saidShown } = search2.covered;
  for (const page of search2.ground.form.pages)
    for (const part of [page, ...page.sections, ...page.sections.flatMap(({ fields }) => fields)]) {
      if (onScreen.has(part.name)) continue;
      const around = search2.containers.get(part.name) ?? [];
      const gone = around.filter((name2) => !onScreen.has(name2));
      const lines = mentioned(search2, part.name, "shown");
      const isSpokenOf = lines.length > 0 || said.has(`${part.name}.shown`) || gone.some((name2) => said.has(`${name2}.shown`));
      if (!isSpokenOf || gone.length > 0 && !saidShown.has(part.name)) continue;
      search2.report(
        "never-shown",
        "wrong",
        { part: part.name, aspect: "onScreen" },
        lines,
        `${part.name} was never on screen in ${search2.sessions} sessions`,
        start
      );
    }
}
function neverShows(search2, start) {
  for (const { behaviour, line: line2, part, aspect: aspect2, met, missed } of search2.covered.inVain.values())
    if (met === 0 && missed >= IN_VAIN)
      search2.report(
        "never-shows",
        "wrong",
        { part, aspect: aspect2 },
        [{ behaviour, line: line2 }],
        `what is said of ${part} ${aspect2} here never shows: something else holds it otherwise`,
        start
      );
}
function neverFilled(search2, start) {
  for (const field3 of fieldsOf(search2.ground.form)) {
    const isForScripts = field3.locked === true || field3.scriptOnly === true;
    if (!isForScripts || field3.kind === "rows" || search2.covered.written.has(field3.name)) continue;
    const lines = mentioned(search2, field3.name, "value");
    if (lines.length > 0)
      search2.report(
        "never-filled",
        "may",
        { part: field3.name, aspect: "value" },
        lines,
        `${field3.name} never got a value in ${search2.sessions} sessions`,
        start
      );
  }
}
function neverOffered(search2, start) {
  for (const { address, field: field3 } of search2.drivers) {
    const offered2 = search2.covered.offered.get(address);
    if (!("options" in field3) || offered2 === void 0 || offered2.has("all")) continue;
    for (const { key } of field3.options)
      if (!offered2.has(key))
        search2.report(
          "never-offered",
          "may",
          { part: address, aspect: `option ${key}` },
          mentioned(search2, address, "options"),
          `${address}: the option ${key} was never offered in ${search2.sessions} sessions`,
          start
        );
  }
}
function oneSided(search2, start) {
  for (const [name2, { count, outcomes }] of search2.covered.conditions) {
    if (outcomes.size > 1 || count < CONDITIONS || !search2.mentions.conditions.includes(name2))
      continue;
    const [behaviour, line2, ...text3] = name2.split(":");
    search2.report(
      "one-sided",
      "may",
      { part: `${behaviour}:${line2}`, aspect: text3.join(":") },
      [{ behaviour, line: Number(line2) }],
      `${text3.join(":")} was ${[...outcomes][0]} each time, ${count} times`,
      start
    );
  }
}
function noDifference(search2, start) {
  for (const { from, part, behaviour, line: line2, tried, differs } of search2.covered.influences.values())
    if (!differs && tried >= INFLUENCES)
      search2.report(
        "no-difference",
        "may",
        { part: from, aspect: part },
        [{ behaviour, line: line2 }],
        `${part} is computed with ${from}, and no other choice made a difference in ${tried} tries`,
        start
      );
}

// src/core/explore/relations/same-end.ts
function sameEnd(search2, kind, one, other, way, { atMost = "wrong" } = {}) {
  if (!isSound(one) || !isSound(other)) return;
  const { form: form2 } = search2.ground;
  const steps = [...one.steps, ...other.steps];
  const entered = new Set(steps.flatMap((step) => "set" in step ? [columnOf(step.set)] : []));
  let differences = differencesOf(form2, one, other).filter(
    ({ part, aspect: aspect2 }) => aspect2 !== "hiddenValue" || !entered.has(columnOf(part))
  );
  if (differences.length === 0) return;
  const added = new Set(steps.flatMap((step) => "addRow" in step ? [step.addRow] : []));
  if (differences.some(({ part, aspect: aspect2 }) => aspect2 === "exists" && added.has(wholeOf(part))))
    return;
  const contested = new Set(
    [...one.said, ...other.said].flatMap(
      ({ part, aspect: aspect2 }) => aspect2 === "value" && entered.has(part) ? [part] : []
    )
  );
  const isContested = ({ part, aspect: aspect2 }) => aspect2 === "value" && contested.has(columnOf(part));
  if (contested.size > 1 && differences.some(isContested)) return;
  const isOwn = ({ part, aspect: aspect2, one: a, other: b }) => {
    if (aspect2 !== "value") return false;
    const column = columnOf(part);
    const values = [a, b];
    const byDefault = defaultOf(form2, part);
    if (!entered.has(column) && byDefault !== null && values.some(isEmpty) && values.some((value) => equal(value, byDefault)))
      return false;
    if (entered.has(column) && values.some((value) => isUntouched(form2, part, value))) return true;
    if (entered.has(column) && contested.has(column)) return true;
    if (one.opening.record !== null && isEmpty(one.opening.record.values[part] ?? null) && values.some(isEmpty))
      return true;
    const couldBeTyped = isOpen(one.parts[part]) || isOpen(other.parts[part]);
    return couldBeTyped && !search2.owned.has(column) && !contested.has(column);
  };
  const inputs = differences.filter(isOwn);
  if (inputs.length > 0) {
    const again = asIfTyped(search2, one, other, inputs);
    const still = isSound(again) ? differencesOf(form2, one, again) : differences;
    const names = new Set(still.map(({ part, aspect: aspect2 }) => `${part}.${aspect2}`));
    for (const difference of inputs) tell3(difference, "may");
    differences = differences.filter(
      (difference) => !inputs.includes(difference) && names.has(`${difference.part}.${difference.aspect}`)
    );
  }
  for (const difference of differences) tell3(difference, grows(difference) ? "may" : atMost);
  function grows({ part, aspect: aspect2 }) {
    if (aspect2 === "exists") return true;
    return search2.said(part, aspect2, one, other).some(
      (said) => said.sort === "handler" && said.reads.includes(`${said.part}.${aspect2}`) && (steps.some((step) => "click" in step) || !search2.covered.addsEntered(said))
    );
  }
  function tell3(difference, level) {
    const { part, aspect: aspect2, one: a, other: b } = difference;
    search2.report(
      kind,
      level,
      { part, aspect: aspect2 },
      search2.said(part, aspect2, one, other),
      `${way}: ${part} ${aspect2} ${JSON.stringify(a)}, else ${JSON.stringify(b)}`,
      one,
      other
    );
  }
}
function asIfTyped(search2, one, other, inputs) {
  const typed = inputs.flatMap(({ part }) => {
    const to = one.parts[part]?.value ?? null;
    return isOpen(other.parts[part]) && !equal(other.parts[part].value ?? null, to) ? [{ set: part, to }] : [];
  });
  return search2.quietly(other.opening, [...withoutWaits(other.steps), ...typed]);
}
function withoutWaits(steps) {
  return steps.filter((step) => !("wait" in step));
}

// src/core/explore/relations/answers.ts
var VALUES = 6;
var PAIRS = 8;
var MEANWHILE = 3;
function aroundAnswers(search2, opening, before) {
  const base = search2.play(opening, before);
  const { services } = search2.ground;
  if (!isSound(base) || services.length === 0) return;
  const moodOfAll = (mood) => Object.fromEntries(services.map(({ name: name2 }) => [name2, mood]));
  const byHand = { ...opening, services: moodOfAll({ byHand: true }) };
  if (search2.quietly(byHand, before).seen.waiting.length > 0) return;
  for (const trigger of triggersOf(search2, base))
    aroundTrigger(search2, byHand, before, base, trigger);
  const failing = { ...opening, services: moodOfAll({ fails: "unreachable" }) };
  for (const button2 of search2.buttons)
    if (isOpen(base.parts[button2])) search2.play(failing, [...before, { click: button2 }]);
}
function triggersOf(search2, base) {
  return [
    ...search2.settable(base).map(({ address, values }) => ({
      address,
      step: (to) => ({ set: address, to, hold: true }),
      values: values.filter((value) => !isEmpty(value) && isOffered(base.parts[address], value))
    })),
    ...search2.buttons.filter((name2) => isOpen(base.parts[name2])).map((name2) => ({
      address: name2,
      step: () => ({ click: name2, hold: true }),
      values: [true]
    }))
  ];
}
function aroundTrigger(search2, byHand, before, base, { address, step, values }) {
  const play = (...steps) => search2.play(byHand, [...before, ...steps]);
  const calls = /* @__PURE__ */ new Map();
  for (const value of values) {
    const open2 = search2.quietly(byHand, [...before, step(value)]);
    const name2 = open2.seen.waiting.flatMap(({ calls: made }) => made.map((call) => call.name)).find((one) => one.includes("."));
    if (name2 !== void 0) calls.set(value, name2);
    if (calls.size >= VALUES) break;
  }
  const answered = (value, which = 0) => ({
    answer: calls.get(value),
    usual: true,
    which,
    hold: true
  });
  const failed = (value) => ({
    answer: calls.get(value),
    fails: "unreachable",
    hold: true
  });
  const isButton = search2.buttons.includes(address);
  const from = valueIn(base, address);
  const field3 = search2.drivers.find((driver) => driver.address === address)?.field;
  for (const v of calls.keys()) {
    const open2 = play(step(v));
    const done2 = play(step(v), answered(v));
    const lost = butServices(play(step(v), failed(v)));
    leftWaiting(search2, base, open2, done2, lost);
    if (isButton) {
      play(step(v), step(v), answered(v));
      continue;
    }
    if (field3 === void 0) continue;
    const empty2 = { set: address, to: emptyOf(field3), hold: true };
    if (isEmpty(from))
      sameEnd(
        search2,
        "order-of-answers",
        play(step(v), empty2, answered(v)),
        base,
        `${address} set to ${JSON.stringify(v)} and emptied before the answer`
      );
    meanwhile(search2, base, address, (set) => ({
      during: play(step(v), set, answered(v)),
      before: play(set, step(v), answered(v)),
      after: play(step(v), answered(v), set)
    }));
  }
  if (isButton) return;
  const tried = [...calls.keys()];
  for (let i = 0; i < PAIRS; i++) {
    const [v, w] = [search2.pick(tried), search2.pick(tried)];
    if (v === void 0 || w === void 0 || equal(v, w)) continue;
    const only2 = play(step(w), answered(w));
    const way = `${address} set to ${JSON.stringify(v)} and then to ${JSON.stringify(w)}`;
    const same = (kind, how, ...steps) => sameEnd(search2, kind, play(...steps), only2, `${way}, ${how}`);
    same("over-another", "each answered", step(v), answered(v), step(w), answered(w));
    const second = calls.get(v) === calls.get(w) ? 1 : 0;
    same(
      "order-of-answers",
      "the second answered first",
      step(v),
      step(w),
      answered(w, second),
      answered(v)
    );
    same("order-of-answers", "the second answered", step(v), step(w), answered(w));
    same("order-of-answers", "answered in order", step(v), step(w), answered(v), answered(w));
    sameEnd(
      search2,
      "failure-keeps",
      butServices(play(step(v), answered(v), step(w), failed(w))),
      butServices(play(step(w), failed(w))),
      `${way}, found for the first and failed for the second`
    );
  }
}
function butServices(ran) {
  return { ...ran, failures: ran.failures.filter(({ code }) => code !== "service") };
}
var WAITING = ["editable", "hint", "label", "onScreen"];
function leftWaiting(search2, base, open2, done2, lost) {
  const of = (ran, part, aspect2) => ran.parts[part]?.[aspect2] ?? null;
  for (const { part, aspect: aspect2 } of differencesOf(search2.ground.form, lost, base)) {
    const waiting = WAITING.find((one) => one === aspect2);
    if (waiting === void 0) continue;
    const [before, during, after, left] = [base, open2, done2, lost].map(
      (ran) => of(ran, part, waiting)
    );
    if (search2.said(part, aspect2, lost).at(-1)?.sort === "rule") continue;
    if (!equal(during, left) || equal(during, before) || equal(after, during)) continue;
    if (aspect2 === "editable" && left !== false) continue;
    search2.report(
      "left-waiting",
      "wrong",
      { part, aspect: aspect2 },
      search2.said(part, aspect2, lost),
      `${part} ${aspect2} is still ${JSON.stringify(left)} after the call has failed`,
      lost,
      done2
    );
  }
}
function meanwhile(search2, base, address, played) {
  for (const driver of search2.settable(base)) {
    if (driver.address === address) continue;
    const values = driver.values.filter(
      (value) => isOffered(base.parts[driver.address], value) && !equal(value, valueIn(base, driver.address))
    ).slice(0, MEANWHILE);
    for (const value of values) {
      const { during, before, after } = played({ set: driver.address, to: value, hold: true });
      if (!isSound(during)) continue;
      const over = during.said.find(
        ({ part, aspect: aspect2, from, sort }) => part === driver.address && aspect2 === "value" && sort === "handler" && equal(from, value)
      );
      if (over !== void 0 && !isEmpty(value))
        search2.report(
          "late-answer-overwrites",
          "wrong",
          { part: driver.address, aspect: "value" },
          [over],
          `${driver.address}: ${JSON.stringify(value)} was entered while a call was open, and the answer writes ${JSON.stringify(over.to)} over it`,
          during,
          after
        );
      if (!isSound(before) || !isSound(after)) continue;
      const fromAfter = new Set(
        differencesOf(search2.ground.form, during, after).map(
          ({ part, aspect: aspect2 }) => `${part}.${aspect2}`
        )
      );
      for (const { part, aspect: aspect2, one, other } of differencesOf(search2.ground.form, during, before))
        if (fromAfter.has(`${part}.${aspect2}`))
          search2.report(
            "late-answer",
            "wrong",
            { part, aspect: aspect2 },
            search2.said(part, aspect2, during, before),
            `${driver.address} entered while a call is open: ${part} ${aspect2} ${JSON.stringify(one)}, else ${JSON.stringify(other)}`,
            during,
            before
          );
    }
  }
}

// src/core/explore/relations/at-load.ts
function savedValues(form2, seen2) {
  return Object.fromEntries(
    fieldsOf(form2).map((field3) => {
      const part = seen2.parts[field3.name];
      if (part?.onScreen === false && field3.whenHidden === "omit")
        return [field3.name, emptyOf(field3)];
      return [
        field3.name,
        field3.kind === "rows" ? rowValues(seen2, field3.name) : part?.value ?? null
      ];
    })
  );
}
function reopened(form2, ran) {
  const { opening, seen: seen2 } = ran;
  const id = opening.record?.id ?? "tried";
  return { ...opening, launch: {}, record: { id, values: savedValues(form2, seen2) } };
}
function atLoad(search2, ran) {
  if (!isSound(ran) || ran.seen.replaced !== null) return;
  const { form: form2 } = search2.ground;
  const untouched2 = search2.quietly(ran.opening, []);
  const asSaved = reopened(form2, untouched2);
  const usual = new Set(differencesOf(form2, untouched2, search2.quietly(asSaved, [])).map(nameOf2));
  const loaded = search2.play(reopened(form2, ran), []);
  if (!isSound(loaded)) return;
  eachOpening(search2, loaded);
  const differences = differencesOf(form2, ran, loaded).filter((one) => !usual.has(nameOf2(one)));
  if (differences.length === 0) return;
  const byHand = search2.quietly(asSaved, withoutWaits(ran.steps));
  const also = isSound(byHand) ? new Set(differencesOf(form2, byHand, loaded).map(({ part, aspect: aspect2 }) => `${part}.${aspect2}`)) : null;
  const saved3 = savedValues(form2, ran.seen);
  for (const { part, aspect: aspect2, one, other } of differences) {
    if (also !== null && !also.has(`${part}.${aspect2}`)) continue;
    const said = search2.said(part, aspect2, ran, loaded);
    const isMeant = aspect2 === "value" && isEmpty(saved3[part] ?? null) || said.some(({ asked: asked2 }) => asked2.some((what) => /^(initial|isNew|record)\b/.test(what))) || said.some(({ reads }) => reads.includes("form.changed")) || ran.steps.some((step) => "click" in step);
    search2.report(
      "at-load",
      isMeant ? "may" : "wrong",
      { part, aspect: aspect2 },
      said,
      `${part} ${aspect2}: ${JSON.stringify(one)} after entering it, ${JSON.stringify(other)} when the form is opened with it`,
      ran,
      loaded
    );
  }
}
var nameOf2 = ({ part, aspect: aspect2 }) => `${columnOf(part)}.${aspect2}`;
function eachOpening(search2, loaded) {
  const { form: form2 } = search2.ground;
  const again = search2.play(reopened(form2, loaded), []);
  if (!isSound(again)) return;
  const saved3 = savedValues(form2, loaded.seen);
  for (const { part, aspect: aspect2, one, other } of differencesOf(form2, loaded, again)) {
    if (aspect2 !== "value" || isEmpty(saved3[part] ?? null)) continue;
    search2.report(
      "each-opening-changes",
      "wrong",
      { part, aspect: aspect2 },
      search2.said(part, aspect2, again),
      `${part}: ${JSON.stringify(one)} is ${JSON.stringify(other)} at the next opening`,
      again
    );
  }
}
function overwrittenAtLoad(search2, opened) {
  const { record } = opened.opening;
  if (record === null) return;
  for (const [name2, part] of Object.entries(opened.parts)) {
    if (part.sort !== "field" || !part.onScreen || (part.stray ?? null) !== null) continue;
    const was = record.values[name2] ?? null;
    if (isEmpty(was) || Array.isArray(was) || equal(was, part.value ?? null)) continue;
    search2.report(
      "load-overwrites",
      "wrong",
      { part: name2, aspect: "value" },
      search2.said(name2, "value", opened),
      `${name2} was saved as ${JSON.stringify(was)} and is ${JSON.stringify(part.value)} when the record is opened`,
      opened
    );
  }
}

// src/core/explore/relations/fields.ts
var FILLED = 4;
function aroundFields(search2, opening, before, width) {
  const base = search2.play(opening, before);
  const around = search2.inOrder(search2.settable(base)).map((driver) => ({
    driver,
    values: driver.values.filter(
      (value) => !equal(value, valueIn(base, driver.address)) && isOffered(base.parts[driver.address], value)
    ).slice(0, width)
  }));
  for (let round2 = 0; round2 < width; round2++)
    for (const { driver, values } of around) {
      const value = values[round2];
      if (value === void 0) continue;
      aroundValue(search2, opening, before, driver, value);
      overAnother(search2, opening, before, driver, values);
    }
}
function aroundValue(search2, opening, before, driver, value) {
  const base = search2.play(opening, before);
  const from = valueIn(base, driver.address);
  const set = { set: driver.address, to: value };
  const there = search2.play(opening, [...before, set]);
  if (!isSound(there)) return;
  noteInfluence(search2, driver, base, there);
  atLoad(search2, there);
  thereAndBack(search2, opening, before, { base, there, set, from });
  leftBehind(search2, opening, before, there, set);
  if (isPicked(driver.field)) search2.play(opening, [...before, set, { submit: true }]);
}
function overAnother(search2, opening, before, { address }, values) {
  const [first, second] = [search2.pick(values), search2.pick(values)];
  if (first === void 0 || second === void 0 || equal(first, second)) return;
  sameEnd(
    search2,
    "over-another",
    search2.play(opening, [...before, { set: address, to: first }, { set: address, to: second }]),
    search2.play(opening, [...before, { set: address, to: second }]),
    `${address} set to ${JSON.stringify(first)} and then to ${JSON.stringify(second)}`
  );
}
function thereAndBack(search2, opening, before, { base, there, set, from }) {
  const back = { set: set.set, to: from };
  const way = `${set.set} set to ${JSON.stringify(set.to)} and back`;
  const straight = search2.play(opening, [...before, set, back]);
  sameEnd(search2, "not-back", straight, base, way);
  const cameUp = search2.settable(there).filter(({ address }) => !isOpen(base.parts[address])).slice(0, FILLED);
  const fill = cameUp.map((one) => ({ set: one.address, to: someOf(one, 1)[0] ?? null }));
  const rowsUp = search2.rowsDrivers.filter(
    ({ name: name2 }) => isOpen(there.parts[name2]) && !isOpen(base.parts[name2])
  );
  const filled = [...fill, ...rowsUp.map((rows3) => search2.newRow(rows3, true))];
  if (filled.length === 0) return;
  const end = search2.play(opening, [...before, set, ...filled, back]);
  const names = [...cameUp.map(({ address }) => address), ...rowsUp.map(({ name: name2 }) => name2)];
  if (names.every((name2) => end.parts[name2]?.onScreen === false))
    sameEnd(search2, "not-back", end, base, `${way}, with what came up filled in`);
}
function leftBehind(search2, opening, before, there, set) {
  const partOf2 = (step) => "set" in step ? wholeOf(step.set) : "addRow" in step ? step.addRow : null;
  const gone = new Set(
    before.flatMap((step) => {
      const part = partOf2(step);
      return part !== null && there.parts[part]?.onScreen === false ? [part] : [];
    })
  );
  if (gone.size === 0) return;
  const without = before.filter((step) => !gone.has(partOf2(step) ?? ""));
  sameEnd(
    search2,
    "gone-leaves",
    there,
    search2.play(opening, [...without, set]),
    `${[...gone].join(", ")} filled in before ${set.set} takes it off the screen`
  );
}
function noteInfluence(search2, driver, base, there) {
  if (driver.field.kind !== "choice" && driver.field.kind !== "reference") return;
  if (valueIn(base, driver.address) === null || valueIn(there, driver.address) === null) return;
  const changed = new Set(
    differencesOf(search2.ground.form, there, base).map(
      ({ part, aspect: aspect2 }) => `${columnOf(part)}.${aspect2}`
    )
  );
  for (const { part, aspect: aspect2, to, reads, behaviour, line: line2 } of there.said)
    if (aspect2 === "value" && to !== null && reads.includes(`${driver.address}.value`))
      search2.covered.noteInfluence(
        { from: driver.address, part, behaviour, line: line2 },
        changed.has(`${part}.value`)
      );
}
function pairOf(search2, open2) {
  const at = (name2) => open2.find(({ address }) => address === name2);
  const known2 = [...search2.covered.together.values()].map((pair3) => pair3.map(at)).filter((pair3) => !pair3.includes(void 0));
  const pair2 = search2.random() < 0.75 ? search2.pick(known2) : void 0;
  return pair2 === void 0 ? [search2.pick(open2), search2.pick(open2)] : search2.random() < 0.5 ? pair2 : pair2.toReversed();
}
function bothOrders(search2, opening, before, width) {
  const base = search2.play(opening, before);
  if (!isSound(base)) return null;
  const open2 = search2.settable(base);
  const [a, b] = pairOf(search2, open2);
  if (a === void 0 || b === void 0 || a === b) return null;
  const valueOf = (driver) => search2.pick(
    driver.values.filter((value) => isOffered(base.parts[driver.address], value)).slice(0, width)
  );
  const [v, w] = [valueOf(a), valueOf(b)];
  if (v === void 0 || w === void 0) return null;
  if (equal(v, valueIn(base, a.address)) || equal(w, valueIn(base, b.address))) return null;
  const [first, second] = [
    { set: a.address, to: v },
    { set: b.address, to: w }
  ];
  const one = search2.play(opening, [...before, first, second]);
  const other = search2.play(opening, [...before, second, first]);
  sameEnd(search2, "order", one, other, `${a.address} before ${b.address}, or after it`);
  if (isSound(one)) overwritten(search2, one, other, a.address, v);
  return one;
}
function overwritten(search2, one, other, address, typed) {
  const over = one.said.find(
    ({ part, aspect: aspect2, from, to, sort }) => part === address && aspect2 === "value" && sort === "handler" && typed !== null && to !== null && equal(from, typed) && !equal(to, typed)
  );
  if (over === void 0) return;
  search2.report(
    "overwrites-typed",
    "may",
    { part: address, aspect: "value" },
    [over],
    `${JSON.stringify(typed)} was entered, and ${JSON.stringify(over.to)} is written over it`,
    one,
    other
  );
}
function canonical(search2, steps) {
  const last = /* @__PURE__ */ new Map();
  const rows3 = [];
  for (const step of steps) {
    if ("set" in step) last.set(step.set, { set: step.set, to: step.to });
    else if ("addRow" in step) rows3.push(step);
  }
  const order2 = fieldsOf(search2.ground.form).map(({ name: name2 }) => name2);
  const placeOf2 = (address) => order2.indexOf(wholeOf(address));
  return [
    ...[...last].sort(([a], [b]) => placeOf2(a) - placeOf2(b)).map(([, step]) => step),
    ...rows3
  ];
}
function inOrder(search2, opening, steps) {
  sameEnd(
    search2,
    "order",
    search2.play(opening, steps),
    search2.play(opening, canonical(search2, steps)),
    "the same entered in another order"
  );
}

// src/core/explore/relations/openings.ts
function sameRoles(search2, opened) {
  const { person } = opened.opening;
  const stranger = { key: "somebody_else", name: "Somebody Else", roles: person.roles };
  const other = search2.quietly({ ...opened.opening, person: stranger }, []);
  if (!isSound(opened) || !isSound(other)) return;
  const named = (value, { key, name: name2 }) => JSON.stringify(value ?? null).replaceAll(name2, "@").replaceAll(key, "@");
  for (const difference of differencesOf(search2.ground.form, opened, other)) {
    const { part, aspect: aspect2, one, other: theirs } = difference;
    if (named(one, person) === named(theirs, stranger)) continue;
    tell(
      search2,
      "same-roles-differ",
      difference,
      `${part} ${aspect2}: ${JSON.stringify(one)} for ${person.name}, ${JSON.stringify(theirs)} for somebody else with the same roles`,
      opened,
      other
    );
  }
}
function launched(search2, opening, launch) {
  const start = search2.play({ ...opening, launch }, []);
  if (!isSound(start)) return;
  atLoad(search2, start);
  const plain = search2.quietly(opening, []);
  const sets = search2.settable(plain).flatMap(({ address }) => {
    const to = valueIn(start, address);
    return equal(to, valueIn(plain, address)) ? [] : [{ set: address, to }];
  });
  if (sets.length === 0) return;
  const typed = search2.play(opening, sets);
  if (!isSound(typed)) return;
  for (const difference of differencesOf(search2.ground.form, start, typed)) {
    const { part, aspect: aspect2, one, other } = difference;
    if (aspect2 === "value" || aspect2 === "editable" || aspect2 === "hiddenValue") continue;
    tell(
      search2,
      "launched-differs",
      difference,
      `${part} ${aspect2}: ${JSON.stringify(one)} when it is launched with ${JSON.stringify(launch)}, ${JSON.stringify(other)} when the same is typed`,
      start,
      typed
    );
  }
}
function formerRecord(search2, opening, from, to) {
  const records = [from, to];
  const direct = search2.play({ ...opening, record: to, records }, []);
  const start = { ...opening, record: from, records };
  const driver = search2.pick(search2.drivers);
  const base = search2.quietly(start, []);
  const value = driver === void 0 ? void 0 : search2.pick(driver.values);
  const steps = driver !== void 0 && value !== void 0 && isOpen(base.parts[driver.address]) ? [{ set: driver.address, to: value }] : [];
  const moved = search2.play(start, [...steps, { next: true }]);
  if (!isSound(direct) || !isSound(moved)) return;
  for (const difference of differencesOf(search2.ground.form, moved, direct)) {
    const { part, aspect: aspect2, one, other } = difference;
    tell(
      search2,
      "former-record",
      difference,
      `${part} ${aspect2}: ${JSON.stringify(one)} after coming from another record, ${JSON.stringify(other)} when it is opened by itself`,
      moved,
      direct
    );
  }
}
var ZONES = [
  { zone: "Pacific/Kiritimati", hours: 14, at: "09:00" },
  { zone: "Pacific/Honolulu", hours: -10, at: "21:00" }
];
function zones(search2, opening, steps) {
  if (!search2.mentions.asks.clock) return;
  const day = new Date(search2.ground.clock).toISOString().slice(0, 10);
  for (const { zone, hours, at } of ZONES) {
    const utc = Date.parse(`${day}T${at}:00Z`);
    const here = search2.quietly({ ...opening, clock: utc }, steps);
    const there = search2.quietly({ ...opening, zone, clock: utc - hours * 36e5 }, steps);
    if (!isSound(here) || !isSound(there)) continue;
    for (const difference of differencesOf(search2.ground.form, here, there)) {
      const { part, aspect: aspect2, one, other } = difference;
      if (/T\d\d:|\dZ/.test(JSON.stringify([one, other]))) continue;
      tell(
        search2,
        "zone",
        difference,
        `${part} ${aspect2}: ${JSON.stringify(other)} in ${zone} at ${at}, ${JSON.stringify(one)} in UTC at ${at} of the same day`,
        there,
        here
      );
    }
  }
}
function tell(search2, kind, { part, aspect: aspect2 }, says, one, other) {
  const said = search2.said(part, aspect2, one, other);
  search2.report(kind, "wrong", { part, aspect: aspect2 }, said, says, one, other);
}
function launchesOf(search2) {
  const { form: form2, tables } = search2.ground;
  const declared = new Map((form2.launch ?? []).map(({ name: name2, kind }) => [name2, kind]));
  const names = [.../* @__PURE__ */ new Set([...declared.keys(), ...search2.mentions.launch])];
  if (names.length === 0) return [];
  const fitting = (name2) => {
    const driver = search2.drivers.find(({ address }) => address === name2);
    switch (declared.get(name2) ?? "text") {
      case "number":
        return 3;
      case "yes_no":
        return true;
      case "date":
        return new Date(search2.ground.clock + 8 * 864e5).toISOString().slice(0, 10);
      default: {
        const value = driver?.values[0];
        const [table] = tables;
        const key = table?.rows[0]?.[table.key];
        return typeof value === "string" ? value : typeof key === "string" ? key : "x";
      }
    }
  };
  const all = Object.fromEntries(names.map((name2) => [name2, fitting(name2)]));
  const texts = search2.mentions.texts.slice(0, 3).map(
    (text3) => Object.fromEntries(
      names.map((name2) => [name2, (declared.get(name2) ?? "text") === "text" ? text3 : all[name2]])
    )
  );
  return [all, ...texts];
}

// src/core/explore/relations/rows.ts
var BY_ANOTHER = ["problem", "warning", "value"];
var NAMES_PLACE = ["hint", "problem", "warning", "value"];
function aroundRows(search2, opening, before, rows3) {
  const base = search2.play(opening, before);
  if (!isSound(base) || !isOpen(base.parts[rows3.name])) return;
  const { name: name2 } = rows3;
  const count = base.seen.rows[name2]?.order.length ?? 0;
  const a = search2.newRow(rows3, search2.random() < 0.6);
  const b = search2.newRow(rows3, search2.random() < 0.6);
  const play = (...steps) => search2.play(opening, [...before, ...steps]);
  const remove = (place) => ({ removeRow: `${name2}[${place}]` });
  const one = play(a);
  sameEnd(search2, "removed-row", play(a, remove(count)), base, "a row added and removed");
  sameEnd(
    search2,
    "removed-row",
    play(b, a, remove(count + 1)),
    play(b),
    "a second row added and removed"
  );
  sameEnd(search2, "removed-row", play(b, a, remove(count)), one, "a first row added and removed");
  enteredLater(search2, rows3, count, a, b, play);
  if (count === 0) exchanged(search2, rows3, one, play(a, b), play(b, a), play);
  if (!isSound(one)) return;
  atLoad(search2, one);
  cells(search2, rows3, count, one, (...steps) => play(a, ...steps));
}
function enteredLater(search2, { name: name2, cells: columns }, count, first, second, play) {
  const values = "addRow" in second ? second.with ?? {} : {};
  const cell = search2.pick(columns.filter(({ address }) => !isEmpty(values[address] ?? null)));
  if (cell === void 0) return;
  const { [cell.address]: value, ...rest } = values;
  const set = { set: `${name2}[${count + 1}].${cell.address}`, to: value };
  sameEnd(
    search2,
    "row-touches-row",
    play(first, { addRow: name2, with: rest }, set),
    play(first, second),
    `${cell.address} of a second row set after it was added`
  );
}
function exchanged(search2, { name: name2 }, alone, ab, ba, play) {
  if (!isSound(ab) || !isSound(ba)) return;
  const { form: form2 } = search2.ground;
  const turned = (part) => part.startsWith(`${name2}[0]`) ? part.replace("[0]", "[1]") : part.startsWith(`${name2}[1]`) ? part.replace("[1]", "[0]") : part;
  const parts = Object.fromEntries(
    Object.entries(ba.parts).map(([part, state]) => [turned(part), state])
  );
  for (const { part, aspect: aspect2, one, other } of differencesBetween(
    form2,
    ab.parts,
    parts,
    ab.seen,
    ba.seen
  ))
    search2.report(
      "order-of-rows",
      NAMES_PLACE.includes(aspect2) ? "may" : "wrong",
      { part, aspect: aspect2 },
      search2.said(part, aspect2, ab, ba),
      `${part} ${aspect2}: ${JSON.stringify(one)}, and with the rows in the other order ${JSON.stringify(other)}`,
      ab,
      ba
    );
  for (const [part, state] of Object.entries(alone.parts)) {
    const behind = ba.parts[part.replace("[0]", "[1]")];
    if (!part.startsWith(`${name2}[0].`) || behind === void 0 || !isSound(alone)) continue;
    for (const { aspect: aspect2, one, other } of differencesBetween(
      form2,
      { [part]: state },
      { [part]: behind },
      alone.seen,
      alone.seen
    )) {
      if (BY_ANOTHER.includes(aspect2)) continue;
      search2.report(
        "row-touches-row",
        "wrong",
        { part, aspect: aspect2 },
        search2.said(part, aspect2, alone, ba),
        `${part} ${aspect2}: ${JSON.stringify(one)} alone, ${JSON.stringify(other)} behind another row`,
        alone,
        ba
      );
    }
  }
  const submitted = [ab, ba].map(
    (ran) => play(...ran.steps.slice(-2).filter((step) => "addRow" in step), { submit: true })
  );
  const [first, second] = submitted;
  if (!isSound(first) || !isSound(second)) return;
  if (first.seen.submit?.saved !== second.seen.submit?.saved)
    search2.report(
      "order-of-rows",
      "wrong",
      { part: name2, aspect: "submit" },
      [...first.submitRuns, ...second.submitRuns],
      `the form is ${first.seen.submit?.saved === true ? "saved" : "not saved"}, and with the rows in the other order it is ${second.seen.submit?.saved === true ? "saved" : "not saved"}`,
      first,
      second
    );
}
function cells(search2, rows3, place, one, play) {
  const at = (cell) => `${rows3.name}[${place}].${cell.address}`;
  const first = search2.pick(rows3.cells);
  if (first === void 0 || !isOpen(one.parts[at(first)])) return;
  const from = valueIn(one, at(first));
  const to = search2.pick(
    first.values.filter((v) => !equal(v, from) && isOffered(one.parts[at(first)], v))
  );
  if (to === void 0) return;
  const set = { set: at(first), to };
  sameEnd(
    search2,
    "not-back",
    play(set, { set: at(first), to: from }),
    one,
    `${at(first)} set to ${JSON.stringify(to)} and back`
  );
  atLoad(search2, play(set));
  const second = search2.pick(rows3.cells);
  if (second === void 0 || second === first || !isOpen(one.parts[at(second)])) return;
  const other = { set: at(second), to: search2.pick(second.values) ?? null };
  sameEnd(
    search2,
    "order",
    play(set, other),
    play(other, set),
    `${at(first)} before ${at(second)}, or after it`
  );
}

// src/core/explore/relations/submitting.ts
var ENOUGH = 6;
var STEPS = 30;
var WAYS_OUT = 80;
var SAVED = 12;
function submitting(search2, from, tries) {
  if (!isSound(from)) return;
  let steps = withoutWaits(from.steps);
  const submitted = () => search2.play(from.opening, [...steps, { submit: true }]);
  const isBroken = (ran2) => ran2.failures.some(({ code }) => code !== "service");
  let ran = submitted();
  let always = null;
  for (let i = 0; i < tries; i++) {
    if (isBroken(ran) || ran.seen.replaced !== null) return;
    const outcome = ran.seen.submit;
    if (outcome === null && ran.refused.length === 0) return;
    if (outcome?.saved === true) return saved(search2, ran);
    always = stillStopping(always, ran);
    const next = [...steps, ...putRight(search2, ran, i)];
    if (next.length === steps.length || next.length > STEPS) break;
    steps = next;
    ran = submitted();
  }
  if (isBroken(ran)) return;
  if (ran.seen.submit?.saved === true) return saved(search2, ran);
  if (always === null || tries < ENOUGH) return;
  for (const [part, { says, open: open2 }] of stillStopping(always, ran))
    if (!open2 && !search2.deadEnds.has(part) && !hasWayOut(search2, ran, part))
      search2.deadEnds.set(part, { ran, says });
}
function hasWayOut(search2, ran, part) {
  if (part === "@form") return false;
  const before = withoutWaits(ran.steps).filter((step) => !("submit" in step));
  const end = search2.quietly(ran.opening, before);
  const more = [
    ...search2.buttons.filter((name2) => isOpen(end.parts[name2])).map((name2) => ({ click: name2 })),
    ...search2.settable(end).flatMap(
      ({ address, values }) => values.filter((value) => isOffered(end.parts[address], value)).map((to) => ({ set: address, to }))
    )
  ];
  return more.slice(0, WAYS_OUT).some((step) => {
    const after = search2.quietly(ran.opening, [...before, step]);
    if (isOpen(after.parts[part])) return true;
    const { submit } = search2.quietly(ran.opening, [...before, step, { submit: true }]).seen;
    return submit !== null && submit.stops.every((stop) => stop.part !== part);
  });
}
function stillStopping(before, ran) {
  const now = /* @__PURE__ */ new Map();
  for (const { part, says } of ran.seen.submit?.stops ?? []) {
    const name2 = part ?? "@form";
    const known2 = before?.get(name2);
    if (before !== null && known2 === void 0) continue;
    const open2 = part !== null && isOpen(ran.parts[part]);
    now.set(name2, { says, open: open2 || (known2?.open ?? false) });
  }
  return now;
}
function putRight(search2, ran, nth2) {
  const steps = [];
  for (const { part } of ran.seen.submit?.stops ?? []) {
    const state = part === null ? void 0 : ran.parts[part];
    if (part === null || !isOpen(state)) continue;
    const rows3 = search2.rowsDrivers.find(({ name: name2 }) => name2 === part);
    if (rows3 !== void 0) {
      steps.push(search2.newRow(rows3, true));
      continue;
    }
    const driver2 = driverAt(search2, part);
    const values2 = driver2 === void 0 ? [] : validOf(driver2).filter((value) => isOffered(state, value));
    const empties = nth2 % 3 === 2 && state.required !== true;
    const to = empties ? null : search2.pick(values2);
    if (to !== void 0) steps.push({ set: part, to });
  }
  if (steps.length > 0 && nth2 % 2 === 0) return steps;
  const buttons = search2.buttons.filter((name2) => isOpen(ran.parts[name2]));
  if (buttons.length > 0 && search2.random() < (nth2 < 4 ? 0.8 : 0.3))
    return [...steps, { click: search2.pick(buttons) }];
  const driver = search2.pick(search2.settable(ran));
  if (driver === void 0) return steps;
  const values = driver.values.filter((value) => isOffered(ran.parts[driver.address], value));
  return [...steps, { set: driver.address, to: search2.pick(values) ?? null }];
}
function driverAt(search2, part) {
  const address = readRowAddress(part);
  if (address === null) return search2.drivers.find((driver) => driver.address === part);
  return search2.rowsDrivers.find(({ name: name2 }) => name2 === address.rows)?.cells.find((cell) => cell.address === address.cell);
}
function deadEnds(search2) {
  for (const [part, { ran, says }] of search2.deadEnds) {
    const state = ran.parts[part];
    const isShut = state !== void 0 && !search2.covered.wasOpen(ran, part) && (!state.onScreen || !state.editable && (!search2.covered.written.has(columnOf(part)) || state.required === true && isEmpty(state.value ?? null)));
    search2.report(
      "dead-end",
      isShut ? "wrong" : "may",
      { part, aspect: "stop" },
      [
        ...["editable", "required", "problem", "onScreen"].flatMap(
          (aspect2) => search2.said(part, aspect2, ran)
        ),
        ...ran.submitRuns.flatMap(
          ({ behaviour, lines }) => lines.map(([line2]) => ({ behaviour, line: line2 }))
        )
      ],
      `submitting stays refused whatever is entered: ${says}`,
      ran
    );
  }
}
function saved(search2, ran) {
  const { submit } = ran.seen;
  if (search2.saved.length < SAVED)
    search2.saved.push({ id: `saved ${search2.saved.length + 1}`, values: submit.values });
  for (const field3 of fieldsOf(search2.ground.form)) {
    if (field3.kind === "rows") continue;
    const part = ran.parts[field3.name];
    const now = part?.value ?? null;
    const sent = submit.values[field3.name] ?? null;
    if (part?.onScreen !== true || equal(now, sent) || isEmpty(now) && isEmpty(sent)) continue;
    search2.report(
      "written-after-saving",
      "wrong",
      { part: field3.name, aspect: "value" },
      search2.said(field3.name, "value", ran),
      `${field3.name}: ${JSON.stringify(sent)} was saved, and the form shows ${JSON.stringify(now)}`,
      ran
    );
  }
}

// src/core/explore/minimized.ts
function minimized(items, still) {
  let now = [...items];
  if (now.length > 0 && still([])) return [];
  let pieces = 2;
  while (now.length >= 2) {
    const size = Math.ceil(now.length / pieces);
    const starts = Array.from({ length: Math.ceil(now.length / size) }, (_, i) => i * size);
    const subset = starts.map((at) => now.slice(at, at + size)).find(still);
    if (subset !== void 0 && subset.length < now.length) {
      now = subset;
      pieces = 2;
      continue;
    }
    const rest = starts.map((at) => now.toSpliced(at, size)).find(still);
    if (rest !== void 0) {
      now = rest;
      pieces = Math.max(pieces - 1, 2);
      continue;
    }
    if (pieces >= now.length) break;
    pieces = Math.min(now.length, pieces * 2);
  }
  return now;
}

// src/core/explore/shrink.ts
var SESSIONS = 300;
var SIMPLE = [true, 1, 3, "Quay 4"];
function shrunk(finding, ground, mentions, stage) {
  const again = repeatOf(finding);
  if (again === null) return finding;
  let left = SESSIONS;
  let last = null;
  const still = (common2) => {
    if (left-- <= 0) return false;
    const search2 = new Exploration(ground, mentions, stage, 1, () => void 0);
    again.repeat(search2, common2);
    const found2 = search2.findings.find(
      (one) => keyOf(one) === keyOf(finding) && one.level === finding.level
    );
    if (found2 !== void 0) last = found2;
    return found2 !== void 0;
  };
  if (!still(again.common)) return finding;
  let common = minimized(again.common, still);
  common.forEach((step, i) => {
    if (!("set" in step)) return;
    const field3 = definitionOf(ground.form, step.set);
    for (const to of SIMPLE) {
      if (field3 === void 0 || !isValid(field3, to) || equal(step.to, to)) continue;
      const simpler = common.with(i, { ...step, to });
      if (!still(simpler)) continue;
      common = simpler;
      break;
    }
  });
  return still(common) && last !== null ? { ...last, lines: finding.lines } : finding;
}
function repeatOf({ kind, way, other }) {
  const steps = bare2(way);
  if (kind === "dead-end") return null;
  if (other === null)
    return {
      common: steps,
      repeat: (search2, common) => void search2.play(way.opening, common)
    };
  if (kind === "at-load")
    return {
      common: steps,
      repeat: (search2, common) => atLoad(search2, search2.play(way.opening, common))
    };
  if (!equal(way.opening, other.opening) || !SAME_END.has(kind)) return null;
  const theirs = bare2(other);
  let shared = 0;
  while (shared < Math.min(steps.length, theirs.length) && equal(steps[shared], theirs[shared]))
    shared++;
  const [tail, otherTail] = [steps.slice(shared), theirs.slice(shared)];
  return {
    common: steps.slice(0, shared),
    repeat: (search2, common) => sameEnd(
      search2,
      kind,
      search2.play(way.opening, [...common, ...tail]),
      search2.play(way.opening, [...common, ...otherTail]),
      tail.length === 0 ? "untouched" : inShort(tail)
    )
  };
}
var SAME_END = /* @__PURE__ */ new Set([
  "not-back",
  "over-another",
  "order",
  "gone-leaves",
  "removed-row",
  "row-touches-row"
]);
function bare2({ steps }) {
  return steps.some((step) => "answer" in step) ? [...steps] : withoutWaits(steps);
}
function inShort(steps) {
  return steps.map(
    (step) => "set" in step ? `${step.set} set to ${JSON.stringify(step.to)}` : Object.keys(step)[0]
  ).join(", then ");
}

// src/core/explore/search.ts
var SHARES = {
  openings: 0.08,
  launch: 0.03,
  singles: 0.2,
  services: 0.15,
  full: 0.16,
  pairs: 0.12,
  rows: 0.1,
  submit: 0.06
};
var SERVICES_CALLED = 0.25;
var PERSONS = 5;
var RECORDS = 5;
var FORMER = 3;
var WALKS = 400;
function search(ground, mentions, stage, options) {
  let phaseEnd = Infinity;
  let cut2 = false;
  const run2 = new Exploration(ground, mentions, stage, options.seed, (sessions2) => {
    if (sessions2 >= options.sessions) throw new Enough();
    if (options.goOn?.(sessions2) === false) {
      cut2 = true;
      throw new Enough();
    }
    if (sessions2 >= phaseEnd) throw new Enough();
  });
  const phase = (share, work) => {
    if (cut2) return;
    phaseEnd = run2.sessions + share * options.sessions;
    try {
      work();
    } catch (caught) {
      if (!(caught instanceof Enough)) throw caught;
    }
  };
  const persons = personsOf(ground);
  const records = ground.records.slice(0, RECORDS).map(({ id, values: values2 }) => ({ id, values: values2 }));
  const openedBy = (person, record = null, launch = {}) => ({
    person,
    record,
    launch,
    clock: ground.clock,
    seed: 1,
    newId: "new",
    records
  });
  const [first] = persons;
  const launches = launchesOf(run2);
  const starts = [
    ...persons.map((person) => openedBy(person)),
    ...records.slice(0, 2).map((record) => openedBy(first, record))
  ];
  phase(SHARES.openings, () => {
    const all = [
      ...persons.map((person) => openedBy(person)),
      ...persons.flatMap((person) => records.map((record) => openedBy(person, record)))
    ];
    for (const opening of all) {
      const opened = run2.play(opening, []);
      overwrittenAtLoad(run2, opened);
      atLoad(run2, opened);
      sameRoles(run2, opened);
    }
    for (const from of records.slice(0, FORMER))
      for (const to of records.slice(0, FORMER))
        if (from !== to) formerRecord(run2, openedBy(first), from, to);
  });
  phase(SHARES.launch, () => {
    for (const launch of launches) launched(run2, openedBy(first), launch);
  });
  phase(SHARES.singles, () => {
    for (const [nth2, opening] of starts.entries()) singles(run2, opening, [], nth2 === 0 ? 9 : 4);
  });
  if (run2.mentions.asks.calls && ground.services.length > 0)
    phase(SERVICES_CALLED, () => aroundAnswers(run2, openedBy(first), []));
  phase(SHARES.full, () => {
    for (const nth2 of [0, 1, 2]) fromFull(run2, openedBy(persons[nth2 % persons.length]), nth2);
  });
  phase(SHARES.pairs, () => {
    for (let i = 0; i < 120; i++) pair(run2, openedBy(first), [], 5);
  });
  if (run2.rowsDrivers.length > 0)
    phase(SHARES.rows, () => {
      for (let i = 0; i < 5; i++)
        for (const rows3 of run2.rowsDrivers) {
          aroundRows(run2, openedBy(first), [], rows3);
          const before = setup(run2, openedBy(first)).filter((step) => !("addRow" in step));
          aroundRows(run2, openedBy(first), before, rows3);
        }
    });
  phase(SHARES.submit, () => {
    for (const opening of starts) submitting(run2, run2.play(opening, []), 25);
  });
  phase(1, () => {
    for (let i = 0; i < WALKS; i++) walk(run2, openedBy, persons, records, launches);
  });
  deadEnds(run2);
  never(run2, { opening: openedBy(first), steps: [] });
  const { onScreen, lines, values, states } = run2.covered;
  return {
    findings: causesOf(run2.findings).map(
      (finding) => finding.level === "wrong" ? shrunk(finding, ground, mentions, stage) : finding
    ),
    sessions: run2.sessions,
    steps: run2.steps,
    covered: {
      onScreen: onScreen.size,
      lines: lines.size,
      values: values.size,
      states: states.size
    },
    cut: cut2
  };
}
function personsOf({ people: people2 }) {
  const byRoles = /* @__PURE__ */ new Map();
  for (const { key, name: name2, roles } of people2) {
    const of = JSON.stringify(roles.toSorted());
    if (!byRoles.has(of)) byRoles.set(of, { key, name: name2, roles });
  }
  return [...byRoles.values()].slice(0, PERSONS);
}
function singles(run2, opening, before, width) {
  const base = run2.play(opening, before);
  if (!isSound(base)) return;
  for (const button2 of run2.buttons)
    if (isOpen(base.parts[button2])) run2.play(opening, [...before, { click: button2 }]);
  aroundFields(run2, opening, before, width);
}
function pair(run2, opening, before, width) {
  const end = bothOrders(run2, opening, before, width);
  if (end === null) return;
  if (run2.random() < 0.4) atLoad(run2, end);
  if (run2.random() < 0.25) submitting(run2, end, 8);
}
function full(run2, opening, nth2) {
  let steps = [];
  for (let round2 = 0; round2 < 3; round2++) {
    const now = run2.quietly(opening, steps);
    for (const driver of run2.settable(now)) {
      if (steps.some((step) => "set" in step && step.set === driver.address)) continue;
      const values = validOf(driver).filter((value) => isOffered(now.parts[driver.address], value));
      if (values.length > 0) steps.push({ set: driver.address, to: values[nth2 % values.length] });
    }
    if (round2 === 0) {
      for (const rows3 of run2.rowsDrivers)
        if (isOpen(now.parts[rows3.name]))
          steps.push(run2.newRow(rows3, true), run2.newRow(rows3, true));
    }
    steps = withoutRefused(run2, opening, steps);
  }
  return steps;
}
function withoutRefused(run2, opening, steps) {
  const { refused } = run2.quietly(opening, steps);
  return steps.filter((step) => !refused.some((one) => equal(one, step)));
}
function fromFull(run2, opening, nth2) {
  const steps = full(run2, opening, nth2);
  const end = run2.play(opening, steps);
  if (!isSound(end)) return;
  atLoad(run2, end);
  for (const button2 of run2.buttons) {
    if (!isOpen(end.parts[button2])) continue;
    const pressed = run2.play(opening, [...steps, { click: button2 }]);
    atLoad(run2, pressed);
    run2.play(opening, [...steps, { click: button2 }, { click: button2 }]);
    submitting(run2, pressed, 6);
  }
  submitting(run2, end, 6);
  zones(run2, opening, steps);
  const isRow = (step) => "addRow" in step;
  const ordered = canonical(run2, steps);
  sameEnd(
    run2,
    "order",
    run2.play(opening, ordered),
    run2.play(opening, [
      ...ordered.filter((step) => !isRow(step)).toReversed(),
      ...ordered.filter(isRow)
    ]),
    "the same entered in another order"
  );
  singles(run2, opening, steps, 3);
}
function setup(run2, opening) {
  const start = run2.quietly(opening, []);
  const chosen = run2.shuffled(run2.settable(start)).slice(0, 6 + Math.floor(run2.random() * 6));
  let steps = [];
  for (const driver of chosen) {
    const values = someOf(driver, Infinity).filter(
      (value) => isOffered(start.parts[driver.address], value)
    );
    const to = run2.pick(run2.random() < 0.6 ? values.slice(0, 4) : values);
    if (to !== void 0 && run2.random() < 0.8) steps.push({ set: driver.address, to });
  }
  steps = withoutRefused(run2, opening, steps);
  const now = run2.quietly(opening, steps);
  for (const driver of run2.settable(now)) {
    if (chosen.includes(driver) || run2.random() > 0.6) continue;
    const to = run2.pick(
      someOf(driver, Infinity).filter((value) => isOffered(now.parts[driver.address], value)).slice(0, 4)
    );
    if (to !== void 0) steps.push({ set: driver.address, to });
  }
  for (const rows3 of run2.rowsDrivers) {
    if (!isOpen(now.parts[rows3.name]) || run2.random() < 0.5) continue;
    for (let n2 = 1 + Math.floor(run2.random() * 2); n2 > 0; n2--)
      steps.push(run2.newRow(rows3, run2.random() < 0.7));
  }
  return steps;
}
function walk(run2, openedBy, persons, records, launches) {
  const person = run2.pick(persons);
  const all = [...records, ...run2.saved];
  const record = run2.random() < 0.3 ? run2.pick(all) ?? null : null;
  const launch = run2.random() < 0.2 ? run2.pick(launches) ?? {} : {};
  const opening = openedBy(person, record, launch);
  const before = setup(run2, opening);
  const end = run2.play(opening, before);
  if (!isSound(end)) return;
  atLoad(run2, end);
  zones(run2, opening, before);
  inOrder(run2, opening, before);
  submitting(run2, end, 6);
  singles(run2, opening, before, 2);
  for (let i = 0; i < 6; i++) pair(run2, opening, before, 7);
  if (run2.random() < 0.3)
    for (const rows3 of run2.rowsDrivers)
      aroundRows(
        run2,
        opening,
        before.filter((step) => !("addRow" in step)),
        rows3
      );
  if (run2.mentions.asks.calls && run2.random() < 0.15) aroundAnswers(run2, opening, before);
  if (all.length < 2) return;
  for (let i = 0; i < 3; i++) {
    const [from, to] = [run2.pick(all), run2.pick(all)];
    if (from !== to) formerRecord(run2, openedBy(person), from, to);
  }
}

// src/core/explore/mentions.ts
import ts2 from "typescript-classic";

// src/core/language/parse.ts
import ts from "typescript-classic";
function parse(source) {
  const file2 = parsedOrNull(source);
  return file2 === null ? { file: parsedAtOnce({ name: source.name, text: "" }), tooDeep: deepestLine(source.text) } : { file: file2, tooDeep: null };
}
function parsedOrNull(source) {
  try {
    const file2 = parsedAtOnce(source);
    return levels(file2) > SYNTAX_LEVELS ? null : file2;
  } catch (caught) {
    if (caught instanceof RangeError) return null;
    throw caught;
  }
}
function parsedAtOnce({ name: name2, text: text3 }) {
  const how = {
    languageVersion: ts.ScriptTarget.ES2022,
    jsDocParsingMode: ts.JSDocParsingMode.ParseNone
  };
  return ts.createSourceFile(
    name2,
    text3,
    how,
    true,
    name2.endsWith(".js") ? ts.ScriptKind.JS : ts.ScriptKind.TS
  );
}
function levels(file2) {
  let level = [file2];
  let count = 0;
  while (level.length > 0 && count <= SYNTAX_LEVELS) {
    const below = [];
    for (const node2 of level) ts.forEachChild(node2, (child) => void below.push(child));
    level = below;
    count++;
  }
  return count;
}
function deepestLine(text3) {
  let [open2, most, line2, deepest] = [0, 0, 1, 1];
  for (const letter of text3) {
    if (letter === "\n") line2++;
    else if ("([{".includes(letter)) open2++;
    else if (")]}".includes(letter)) open2--;
    if (open2 > most) [most, deepest] = [open2, line2];
  }
  return deepest;
}

// src/core/script/script-name.ts
var MODULES = "shared/";
function isModule(name2) {
  return name2.startsWith(MODULES);
}
function fileName(name2) {
  return name2.slice(name2.lastIndexOf("/") + 1);
}
function baseName(name2) {
  return name2.replace(/\.[jt]s$/, "");
}

// src/core/explore/mentions.ts
var KEY_CHARACTERS = 40;
function mentionsOf(sources) {
  const numbers = /* @__PURE__ */ new Set();
  const texts = /* @__PURE__ */ new Set();
  const dates = /* @__PURE__ */ new Set();
  const times = /* @__PURE__ */ new Set();
  const patterns2 = /* @__PURE__ */ new Set();
  const names = /* @__PURE__ */ new Set();
  const launch = /* @__PURE__ */ new Set();
  const members2 = [];
  const conditions2 = /* @__PURE__ */ new Set();
  const identifiers = /* @__PURE__ */ new Set();
  for (const source of sources) {
    const { file: file2 } = parse(source);
    const behaviour = baseName(source.name);
    const placeOf2 = (node2) => ({
      behaviour,
      line: file2.getLineAndCharacterOfPosition(node2.getStart(file2)).line + 1
    });
    const isLaunch = (node2) => ts2.isPropertyAccessExpression(node2) && node2.name.text === "launch" && node2.expression.getText(file2) === "form";
    const text3 = (found2) => {
      if (isDate(found2)) dates.add(found2);
      else if (isTime(found2)) times.add(found2);
      else if (/^\d{2}-\d{2}$/.test(found2) && isDate(`2031-${found2}`)) dates.add(`2031-${found2}`);
      else if (found2.trim() !== "" && found2.length <= KEY_CHARACTERS) texts.add(found2);
    };
    const visit = (node2) => {
      if (ts2.isNumericLiteral(node2)) numbers.add(Number(node2.text));
      else if (ts2.isStringLiteralLike(node2)) {
        if (!ts2.isImportDeclaration(node2.parent)) text3(node2.text);
      } else if (ts2.isRegularExpressionLiteral(node2)) {
        patterns2.add(node2.text.slice(1, node2.text.lastIndexOf("/")));
      } else if (ts2.isIdentifier(node2)) identifiers.add(node2.text);
      if (ts2.isPropertyAccessExpression(node2)) {
        names.add(node2.name.text);
        if (isLaunch(node2.expression)) launch.add(node2.name.text);
        const { expression } = node2;
        const part = ts2.isPropertyAccessExpression(expression) ? expression.name.text : ts2.isIdentifier(expression) ? expression.text : null;
        if (part !== null)
          members2.push({
            part,
            aspect: node2.name.text,
            ...placeOf2(node2),
            written: isAssigned(node2)
          });
      }
      if (ts2.isElementAccessExpression(node2) && ts2.isStringLiteralLike(node2.argumentExpression)) {
        names.add(node2.argumentExpression.text);
        if (isLaunch(node2.expression)) launch.add(node2.argumentExpression.text);
      }
      if (ts2.isBindingElement(node2)) {
        const name2 = (node2.propertyName ?? node2.name).getText(file2);
        names.add(name2);
        const from = node2.parent.parent;
        if (ts2.isVariableDeclaration(from) && from.initializer && isLaunch(from.initializer))
          launch.add(name2);
      }
      const condition = ts2.isIfStatement(node2) ? node2.expression : ts2.isConditionalExpression(node2) ? node2.condition : null;
      if (condition !== null && !asksWhetherThere(condition)) {
        const { line: line2 } = placeOf2(condition);
        conditions2.add(`${behaviour}:${line2}:${condition.getText(file2)}`);
      }
      ts2.forEachChild(node2, visit);
    };
    visit(file2);
  }
  const mentions = (...some) => some.some((name2) => names.has(name2) || identifiers.has(name2));
  return {
    numbers: [...numbers].slice(0, 20),
    texts: [...texts].slice(0, 40),
    dates: [...dates].slice(0, 8),
    times: [...times].slice(0, 6),
    patterns: [...patterns2].slice(0, 6),
    names: [...names],
    words: [.../* @__PURE__ */ new Set([...names, ...identifiers, ...texts])],
    launch: [...launch],
    members: members2,
    conditions: [...conditions2],
    asks: {
      length: names.has("length"),
      month: mentions("month", "months", "getMonth", "getUTCMonth"),
      clock: mentions("Date", "Now"),
      calls: mentions("services", "after")
    }
  };
}
function isAssigned(node2) {
  const { parent } = node2;
  return ts2.isBinaryExpression(parent) && parent.left === node2 && parent.operatorToken.kind >= ts2.SyntaxKind.FirstAssignment && parent.operatorToken.kind <= ts2.SyntaxKind.LastAssignment;
}
function asksWhetherThere(node2) {
  if (ts2.isParenthesizedExpression(node2)) return asksWhetherThere(node2.expression);
  if (ts2.isPrefixUnaryExpression(node2)) return asksWhetherThere(node2.operand);
  if (ts2.isIdentifier(node2) || ts2.isPropertyAccessExpression(node2)) return true;
  if (!ts2.isBinaryExpression(node2)) return false;
  const right2 = node2.right.getText();
  return (right2 === "null" || right2 === "undefined" || right2 === '"person"') && asksWhetherThere(node2.left);
}

// src/core/language/compile.ts
import ts9 from "typescript-classic";

// src/core/script/header.ts
var OFF = /^[ \t]*@off[ \t]*$/m;
var FORMS = /^[ \t]*@forms[ \t]+(\S.*?)[ \t]*$/m;
var LEADING_COMMENT = /^\s*\/\*\*([\s\S]*?)\*\//;
function readHeader(source) {
  const file2 = fileName(source.name);
  const number6 = /^(\d+)-/.exec(file2);
  const order2 = number6 === null ? null : Number(number6[1]);
  const fallback = file2.replace(/^\d+-/, "").replace(/\.[jt]s$/, "").replace(/[-_]/g, " ");
  const comment = LEADING_COMMENT.exec(source.text);
  if (comment === null) return { title: fallback, purpose: "", order: order2, off: false, forms: null };
  const lines = comment[1].replace(/^[ \t]*\*[ \t]?/gm, "");
  const off = OFF.test(lines);
  const forms = FORMS.exec(lines);
  const rest = { order: order2, off, forms: forms === null ? null : forFormsIn(forms[1]) };
  const text3 = lines.replace(OFF, "").replace(FORMS, "").trim().replace(/\s+/g, " ");
  const colon = text3.indexOf(": ");
  if (colon > 0 && colon <= 60)
    return { title: text3.slice(0, colon), purpose: text3.slice(colon + 2), ...rest };
  return { title: text3.replace(/\.$/, "").slice(0, 60) || fallback, purpose: "", ...rest };
}
var listed2 = (text3) => text3.split(/[\s,]+/).filter((name2) => name2 !== "");
function forFormsIn(text3) {
  const parts = /^with[ \t]+(.+)$/.exec(text3);
  return parts === null ? { named: listed2(text3) } : { with: listed2(parts[1]) };
}
function takingPart(sources) {
  return inOrder2(sources).filter((source) => !isModule(source.name) && !readHeader(source).off);
}
function inOrder2(sources) {
  const order2 = (source) => Number(/^(\d+)-/.exec(fileName(source.name))?.[1] ?? Infinity);
  const byName = (a, b) => a < b ? -1 : a > b ? 1 : 0;
  return [...sources].sort(
    (a, b) => order2(a) - order2(b) || byName(fileName(a.name), fileName(b.name)) || byName(a.name, b.name)
  );
}

// src/core/language/instrument.ts
import ts6 from "typescript-classic";

// src/core/language/details.ts
import ts5 from "typescript-classic";

// src/core/language/flow-syntax.ts
import ts3 from "typescript-classic";
var COMPARISONS = {
  [ts3.SyntaxKind.EqualsEqualsEqualsToken]: "equal",
  [ts3.SyntaxKind.EqualsEqualsToken]: "equal",
  [ts3.SyntaxKind.ExclamationEqualsEqualsToken]: "unequal",
  [ts3.SyntaxKind.ExclamationEqualsToken]: "unequal"
};
var CHANGING = /* @__PURE__ */ new Set([
  "push",
  "pop",
  "shift",
  "unshift",
  "splice",
  "sort",
  "reverse",
  "fill",
  "set",
  "add",
  "delete",
  "clear"
]);

// src/core/language/scopes.ts
import ts4 from "typescript-classic";
var Scopes = class {
  #of = /* @__PURE__ */ new Map();
  #count = 0;
  /** The variable that a name means where it stands; null for what the script does not declare. */
  find(name2, at) {
    for (let node2 = at; node2 !== void 0; node2 = node2.parent) {
      const found2 = this.#declaredBy(node2)?.get(name2);
      if (found2 !== void 0) return found2;
    }
    return null;
  }
  /** All variables in sight of a place, the nearest of each name. */
  inSight(at) {
    const found2 = /* @__PURE__ */ new Map();
    for (let node2 = at; node2 !== void 0; node2 = node2.parent)
      for (const [name2, variable] of this.#declaredBy(node2) ?? [])
        if (!found2.has(name2)) found2.set(name2, variable);
    return [...found2.values()];
  }
  #declaredBy(node2) {
    if (!makesScope(node2)) return null;
    const known2 = this.#of.get(node2);
    if (known2 !== void 0) return known2;
    const names = /* @__PURE__ */ new Map();
    this.#of.set(node2, names);
    const owner = ownerOf(node2);
    const add = (name2, isFunction = false) => {
      if (name2 === void 0) return;
      if (!ts4.isIdentifier(name2)) {
        for (const one of name2.elements) if (ts4.isBindingElement(one)) add(one.name);
        return;
      }
      if (!names.has(name2.text))
        names.set(name2.text, {
          number: this.#count++,
          name: name2.text,
          declared: name2.getStart(),
          owner,
          isFunction
        });
    };
    if (ts4.isFunctionLike(node2)) {
      if (ts4.isFunctionExpression(node2)) add(node2.name, true);
      for (const parameter of node2.parameters) add(parameter.name);
    }
    const list2 = ts4.isForStatement(node2) || ts4.isForOfStatement(node2) || ts4.isForInStatement(node2) ? node2.initializer : null;
    if (list2 != null && ts4.isVariableDeclarationList(list2))
      for (const one of list2.declarations) add(one.name);
    if (ts4.isCatchClause(node2)) add(node2.variableDeclaration?.name);
    const statements = ts4.isSourceFile(node2) || ts4.isBlock(node2) || ts4.isModuleBlock(node2) ? node2.statements : ts4.isCaseBlock(node2) ? node2.clauses.flatMap((clause) => [...clause.statements]) : [];
    for (const statement of statements) {
      if (ts4.isVariableStatement(statement))
        for (const one of statement.declarationList.declarations) add(one.name);
      if (ts4.isFunctionDeclaration(statement) || ts4.isClassDeclaration(statement))
        add(statement.name, true);
      if (ts4.isImportDeclaration(statement)) {
        const bindings = statement.importClause?.namedBindings;
        if (bindings !== void 0 && ts4.isNamedImports(bindings))
          for (const one of bindings.elements) add(one.name, true);
      }
    }
    if (ts4.isSourceFile(node2) || ts4.isBlock(node2) && ts4.isFunctionLike(node2.parent))
      for (const one of varsIn(node2)) add(one.name);
    return names;
  }
};
function makesScope(node2) {
  return ts4.isSourceFile(node2) || ts4.isBlock(node2) || ts4.isCaseBlock(node2) || ts4.isFunctionLike(node2) || ts4.isForStatement(node2) || ts4.isForOfStatement(node2) || ts4.isForInStatement(node2) || ts4.isCatchClause(node2);
}
function ownerOf(node2) {
  let owner = node2;
  while (!ts4.isSourceFile(owner) && !(ts4.isFunctionLike(owner) && hasBody(owner)))
    owner = owner.parent;
  return owner;
}
function hasBody(node2) {
  return "body" in node2 && node2.body !== void 0;
}
function varsIn(node2) {
  const found2 = [];
  const look = (inner) => {
    if (ts4.isFunctionLike(inner)) return;
    if (ts4.isVariableDeclarationList(inner) && (inner.flags & ts4.NodeFlags.BlockScoped) === 0)
      found2.push(...inner.declarations);
    ts4.forEachChild(inner, look);
  };
  ts4.forEachChild(node2, look);
  return found2;
}
function isValueUse(node2) {
  const { parent } = node2;
  if (ts4.isPropertyAccessExpression(parent)) return parent.name !== node2;
  if (ts4.isPropertyAssignment(parent)) return parent.name !== node2;
  if (ts4.isBindingElement(parent)) return parent.initializer === node2;
  if (ts4.isVariableDeclaration(parent) || ts4.isParameter(parent))
    return parent.initializer === node2;
  return !((ts4.isMethodDeclaration(parent) || ts4.isFunctionDeclaration(parent) || ts4.isFunctionExpression(parent) || ts4.isClassDeclaration(parent) || ts4.isPropertyDeclaration(parent) || ts4.isGetAccessor(parent) || ts4.isSetAccessor(parent)) && parent.name === node2);
}

// src/core/language/details.ts
var COMPARES = /* @__PURE__ */ new Map([
  [ts5.SyntaxKind.EqualsEqualsEqualsToken, "==="],
  [ts5.SyntaxKind.EqualsEqualsToken, "=="],
  [ts5.SyntaxKind.ExclamationEqualsEqualsToken, "!=="],
  [ts5.SyntaxKind.ExclamationEqualsToken, "!="],
  [ts5.SyntaxKind.LessThanToken, "<"],
  [ts5.SyntaxKind.LessThanEqualsToken, "<="],
  [ts5.SyntaxKind.GreaterThanToken, ">"],
  [ts5.SyntaxKind.GreaterThanEqualsToken, ">="]
]);
var CHOOSES = /* @__PURE__ */ new Set([
  ts5.SyntaxKind.AmpersandAmpersandToken,
  ts5.SyntaxKind.BarBarToken,
  ts5.SyntaxKind.QuestionQuestionToken
]);
var FRAME = "__frame";
var MOST_VARIABLES = 30;
var Details = class {
  constructor(file2, factory, probe) {
    this.file = file2;
    this.probe = probe;
    this.#f = factory;
  }
  file;
  probe;
  sites = [];
  #f;
  #scopes = new Scopes();
  #numbers = /* @__PURE__ */ new Map();
  #mentioned = /* @__PURE__ */ new Map();
  #leaves = /* @__PURE__ */ new Map();
  /** What stands at the top of a script: its activation. */
  get prologue() {
    return this.#frame(this.probe("e", this.#num(this.#site(this.file, "function")), this.#none));
  }
  /** What a function does first: tells its parameters. */
  enter(node2) {
    const names = node2.parameters.flatMap(({ name: name2 }) => boundNames(name2));
    const site = this.#site(node2, "function", { names: names.map(({ text: text3 }) => text3) });
    return this.#frame(this.probe("e", this.#num(site), this.#values(names.map((n2) => n2.text))));
  }
  get leave() {
    return this.#f.createExpressionStatement(this.probe("x", this.#f.createIdentifier(FRAME)));
  }
  /** Tells that a statement begins, with the variables in sight. */
  statement(node2) {
    const names = this.#inSight(node2);
    const site = this.#site(node2, "statement", { names });
    return this.#f.createExpressionStatement(
      this.probe(
        "d",
        this.#num(site),
        this.#f.createIdentifier(FRAME),
        names.length === 0 ? this.#none : this.#values(names)
      )
    );
  }
  /** What stands first in the body of a loop over items: tells that the next item is at hand. */
  item(loop) {
    return this.#f.createExpressionStatement(
      this.probe(
        "d",
        this.#num(this.#site(loop, "item")),
        this.#f.createIdentifier(FRAME),
        this.#values(itemNames(loop))
      )
    );
  }
  caught(clause) {
    return this.#f.createExpressionStatement(
      this.probe(
        "d",
        this.#num(this.#site(clause, "item")),
        this.#f.createIdentifier(FRAME),
        this.#none
      )
    );
  }
  /** A condition, or what a `switch` looks at: tells when it begins, and what it came to. */
  condition(node2, visited, kind = "condition", more = {}) {
    const site = this.#num(this.#site(node2, kind, more));
    const frame = this.#f.createIdentifier(FRAME);
    return this.#f.createParenthesizedExpression(
      this.#f.createComma(
        this.probe("b", site, frame),
        this.probe(kind === "switch" ? "k" : "c", site, frame, visited)
      )
    );
  }
  #choosing(node2) {
    const { parent } = node2;
    const chooses = ts5.isIfStatement(parent) && parent.expression === node2 || ts5.isConditionalExpression(parent) && parent.condition === node2;
    return chooses ? this.file.getLineAndCharacterOfPosition(parent.getStart(this.file)).line + 1 : null;
  }
  /** A comparison of whatever expression; null for one that compares nothing. */
  comparison(node2, visit, visitArgument) {
    const f = this.#f;
    if (ts5.isBinaryExpression(node2)) {
      const op = COMPARES.get(node2.operatorToken.kind);
      if (op === void 0) return null;
      const site = this.#site(node2, "comparison", { op });
      const side = (operand) => this.#operand(operand, visit(operand), site);
      return this.#compared(
        site,
        f.updateBinaryExpression(node2, side(node2.left), node2.operatorToken, side(node2.right))
      );
    }
    if (ts5.isCallExpression(node2) && node2.arguments.length === 1 && !ts5.isSpreadElement(node2.arguments[0]) && ts5.isPropertyAccessExpression(node2.expression) && node2.expression.questionDotToken === void 0 && node2.expression.name.text === "includes" && node2.questionDotToken === void 0 && !isOptionalChain(node2.expression.expression)) {
      const site = this.#site(node2, "comparison", { op: "includes" });
      const callee = node2.expression;
      const [argument] = node2.arguments;
      return this.#compared(
        site,
        f.updateCallExpression(
          node2,
          f.updatePropertyAccessExpression(
            callee,
            this.#operand(callee.expression, visit(callee.expression), site),
            callee.name
          ),
          void 0,
          [this.#operand(argument, visitArgument(argument), site)]
        )
      );
    }
    return null;
  }
  /** The left side of `&&`, `||` or `??`, which decides whether the right one is looked at; null for other operators. */
  choosing(node2, visit) {
    if (!CHOOSES.has(node2.operatorToken.kind)) return null;
    return this.#f.updateBinaryExpression(
      node2,
      this.condition(
        node2.left,
        visit(node2.left),
        "condition",
        node2.operatorToken.kind === ts5.SyntaxKind.QuestionQuestionToken ? { op: "??" } : {}
      ),
      node2.operatorToken,
      visit(node2.right)
    );
  }
  /** What a function gives back. */
  returned(node2, visited) {
    return this.#compared(this.#site(node2, "returned"), visited);
  }
  /** A wait, or a generator's: what runs meanwhile is not this function. */
  wait(operand, around) {
    const frame = this.#f.createIdentifier(FRAME);
    return this.probe("r", frame, around(this.probe("z", frame, operand)));
  }
  #operand(node2, visited, comparison) {
    const site = this.#site(node2, "operand", { under: { site: comparison, holds: null } });
    return this.probe("o", this.#num(site), this.#f.createIdentifier(FRAME), visited);
  }
  /** Tells what the expression of a site came to. */
  #compared(site, expression) {
    return this.probe("o", this.#num(site), this.#f.createIdentifier(FRAME), expression);
  }
  #frame(value) {
    return this.#f.createVariableStatement(
      void 0,
      this.#f.createVariableDeclarationList(
        [this.#f.createVariableDeclaration(FRAME, void 0, void 0, value)],
        ts5.NodeFlags.Const
      )
    );
  }
  #num(n2) {
    return this.#f.createNumericLiteral(n2);
  }
  get #none() {
    return this.#f.createNull();
  }
  #values(names) {
    return names.length === 0 ? this.#none : this.#f.createArrowFunction(
      void 0,
      void 0,
      [],
      void 0,
      void 0,
      this.#f.createArrayLiteralExpression(names.map((name2) => this.#f.createIdentifier(name2)))
    );
  }
  /** The number of a place; the same for the same node and kind. */
  #site(node2, kind, more = {}) {
    const known2 = this.#numbers.get(node2)?.get(kind);
    if (known2 !== void 0) return known2;
    const number6 = this.sites.length;
    const ofNode = this.#numbers.get(node2) ?? /* @__PURE__ */ new Map();
    ofNode.set(kind, number6);
    this.#numbers.set(node2, ofNode);
    const start = node2.getStart(this.file);
    const site = {
      kind,
      line: this.file.getLineAndCharacterOfPosition(start).line + 1,
      start,
      end: node2.getEnd(),
      text: kind === "function" ? "" : cut(node2.getText(this.file)),
      within: null,
      names: kind === "item" && !ts5.isCatchClause(node2) ? itemNames(node2) : [],
      uses: [],
      defines: [],
      changes: [],
      under: null,
      leaves: [],
      chooses: kind === "condition" ? this.#choosing(node2) : null,
      op: null,
      marks: [],
      passedTo: kind === "function" ? methodGiven(node2) : null,
      ...more
    };
    this.sites.push(site);
    const owner = kind === "function" ? ownerAbove(node2) : ownerNear(node2);
    Object.assign(site, {
      within: owner === null ? null : this.#site(owner, "function", this.#parameters(owner)),
      ...this.#flowOf(node2, kind),
      ...more.under === void 0 && kind !== "function" ? this.#reached(node2) : {}
    });
    return number6;
  }
  #parameters(owner) {
    return ts5.isFunctionLike(owner) ? {
      names: owner.parameters.flatMap(
        (p) => boundNames(p.name).map(({ text: text3 }) => text3)
      )
    } : {};
  }
  /** What a place uses, gives and changes, without the functions and statements within it. */
  #flowOf(node2, kind) {
    const uses = /* @__PURE__ */ new Set();
    const defines = /* @__PURE__ */ new Set();
    const changes = /* @__PURE__ */ new Set();
    const marks = /* @__PURE__ */ new Set();
    const numberOf = (name2) => this.#scopes.find(name2.text, name2)?.number ?? null;
    const add = (to, name2) => {
      const number6 = numberOf(name2);
      if (number6 !== null) to.add(number6);
    };
    const target = (to) => {
      if (ts5.isIdentifier(to)) add(defines, to);
      else if (ts5.isPropertyAccessExpression(to) || ts5.isElementAccessExpression(to)) {
        const root = rootOf(to);
        if (root !== null) add(changes, root);
        look(to);
      } else if (ts5.isParenthesizedExpression(to)) target(to.expression);
      else if (ts5.isArrayLiteralExpression(to))
        for (const one of to.elements) target(ts5.isSpreadElement(one) ? one.expression : one);
      else if (ts5.isObjectLiteralExpression(to))
        for (const one of to.properties) {
          if (ts5.isShorthandPropertyAssignment(one)) add(defines, one.name);
          else if (ts5.isPropertyAssignment(one)) target(one.initializer);
          else if (ts5.isSpreadAssignment(one)) target(one.expression);
        }
      else if (ts5.isBinaryExpression(to)) {
        target(to.left);
        look(to.right);
      } else look(to);
    };
    const look = (inner) => {
      if (ts5.isFunctionLike(inner) && inner !== node2) return;
      if (inner !== node2 && ts5.isStatement(inner) && !ts5.isVariableStatement(inner)) return;
      if (ts5.isTypeNode(inner)) return;
      if (ts5.isVariableDeclaration(inner)) {
        for (const name2 of boundNames(inner.name)) add(defines, name2);
        lookAtPattern(inner.name);
        if (inner.initializer !== void 0) look(inner.initializer);
        return;
      }
      if (ts5.isBinaryExpression(inner) && isAssignment(inner.operatorToken.kind)) {
        target(inner.left);
        if (inner.operatorToken.kind !== ts5.SyntaxKind.EqualsToken) look(inner.left);
        return look(inner.right);
      }
      if ((ts5.isPrefixUnaryExpression(inner) || ts5.isPostfixUnaryExpression(inner)) && (inner.operator === ts5.SyntaxKind.PlusPlusToken || inner.operator === ts5.SyntaxKind.MinusMinusToken)) {
        target(inner.operand);
        return look(inner.operand);
      }
      if (ts5.isCallExpression(inner) && ts5.isPropertyAccessExpression(inner.expression) && CHANGING.has(inner.expression.name.text)) {
        const root = rootOf(inner.expression);
        if (root !== null) add(changes, root);
      }
      if (ts5.isIdentifier(inner)) {
        if (inner.text === "Date" || inner.text === "Temporal") marks.add("clock");
        if (inner.text === "previous" && !isDeclared(inner)) marks.add("previous");
        if (isValueUse(inner)) add(uses, inner);
      }
      if (ts5.isPropertyAccessExpression(inner) && inner.name.text === "random" && ts5.isIdentifier(inner.expression) && inner.expression.text === "Math")
        marks.add("random");
      ts5.forEachChild(inner, look);
    };
    const lookAtPattern = (name2) => {
      if (ts5.isIdentifier(name2)) return;
      for (const one of name2.elements)
        if (ts5.isBindingElement(one)) {
          if (one.initializer !== void 0) look(one.initializer);
          lookAtPattern(one.name);
        }
    };
    if (kind === "function") {
      if (ts5.isFunctionLike(node2))
        for (const one of node2.parameters)
          for (const name2 of boundNames(one.name)) add(defines, name2);
    } else if (kind === "item") {
      if (ts5.isCatchClause(node2)) {
        if (node2.variableDeclaration !== void 0)
          for (const name2 of boundNames(node2.variableDeclaration.name)) add(defines, name2);
      } else {
        const { initializer: initializer3, expression } = node2;
        if (ts5.isVariableDeclarationList(initializer3))
          for (const one of initializer3.declarations)
            for (const name2 of boundNames(one.name)) add(defines, name2);
        else target(initializer3);
        look(expression);
      }
    } else if (ts5.isForStatement(node2) && kind === "statement") {
      if (node2.initializer !== void 0) look(node2.initializer);
      if (node2.incrementor !== void 0) look(node2.incrementor);
    } else if (ts5.isForOfStatement(node2) || ts5.isForInStatement(node2)) look(node2.expression);
    else if (ts5.isSwitchStatement(node2)) look(node2.expression);
    else if (ts5.isIfStatement(node2)) look(node2.expression);
    else if (ts5.isWhileStatement(node2) || ts5.isDoStatement(node2)) look(node2.expression);
    else if (!ts5.isTryStatement(node2) && !ts5.isBlock(node2) && !ts5.isLabeledStatement(node2))
      look(node2);
    return { uses: [...uses], defines: [...defines], changes: [...changes], marks: [...marks] };
  }
  /** The variables in sight that its function mentions and that have a value by then. */
  #inSight(node2) {
    const owner = ownerNear(node2) ?? this.file;
    const mentioned2 = this.#mentionedIn(owner);
    const shows = ({ isFunction, declared, owner: of, number: number6 }) => !isFunction && declared < node2.getStart(this.file) && (of === owner || mentioned2.has(number6));
    return this.#scopes.inSight(node2.parent ?? node2).filter(shows).slice(0, MOST_VARIABLES).map(({ name: name2 }) => name2);
  }
  #mentionedIn(owner) {
    const known2 = this.#mentioned.get(owner);
    if (known2 !== void 0) return known2;
    const found2 = /* @__PURE__ */ new Set();
    const look = (node2) => {
      if (ts5.isIdentifier(node2) && isValueUse(node2)) {
        const number6 = this.#scopes.find(node2.text, node2)?.number;
        if (number6 !== void 0) found2.add(number6);
      }
      ts5.forEachChild(node2, look);
    };
    ts5.forEachChild(owner, look);
    this.#mentioned.set(owner, found2);
    return found2;
  }
  /** The condition right above a place, and those before it under which its function or round is left. */
  #reached(node2) {
    const leaves = [];
    for (let at = node2; ; at = at.parent) {
      const above = at.parent;
      if (above === void 0 || ts5.isSourceFile(at)) return { under: null, leaves };
      this.#leavesBefore(at, above, leaves);
      const under = this.#controlOf(at, above);
      if (under !== null) return { under, leaves };
      if (ts5.isFunctionLike(at)) return { under: null, leaves };
    }
  }
  #leavesBefore(at, above, leaves) {
    const list2 = ts5.isBlock(above) || ts5.isSourceFile(above) || ts5.isCaseClause(above) || ts5.isDefaultClause(above) ? above.statements : null;
    if (list2 === null || ts5.isFunctionLike(at)) return;
    for (const statement of list2) {
      if (statement === at || statement.getStart(this.file) >= at.getStart(this.file)) break;
      for (const { condition, holds } of this.#leavingIn(statement))
        leaves.push({ site: this.#site(condition, "condition"), holds });
    }
  }
  /** Conditions within a statement under which what follows it is not reached. */
  #leavingIn(statement) {
    const known2 = this.#leaves.get(statement);
    if (known2 !== void 0) return known2;
    const found2 = [];
    const look = (node2) => {
      if (ts5.isFunctionLike(node2)) return false;
      if (ts5.isReturnStatement(node2) || ts5.isThrowStatement(node2) || ts5.isContinueStatement(node2) || ts5.isBreakStatement(node2))
        return true;
      if (ts5.isIfStatement(node2)) {
        const [whenTrue, whenFalse] = [
          look(node2.thenStatement),
          node2.elseStatement !== void 0 && look(node2.elseStatement)
        ];
        if (!whenTrue && !whenFalse) return false;
        found2.push({
          condition: node2.expression,
          holds: whenTrue && whenFalse ? null : !whenTrue
        });
        return true;
      }
      let leaves = false;
      ts5.forEachChild(node2, (child) => {
        if (look(child)) leaves = true;
      });
      return leaves;
    };
    look(statement);
    this.#leaves.set(statement, found2);
    return found2;
  }
  #controlOf(at, above) {
    const on = (condition, holds) => ({
      site: this.#site(condition, "condition"),
      holds
    });
    if (ts5.isIfStatement(above)) {
      if (at === above.thenStatement) return on(above.expression, true);
      if (at === above.elseStatement) return on(above.expression, false);
    }
    if (ts5.isConditionalExpression(above)) {
      if (at === above.whenTrue) return on(above.condition, true);
      if (at === above.whenFalse) return on(above.condition, false);
    }
    if (ts5.isBinaryExpression(above) && CHOOSES.has(above.operatorToken.kind) && at === above.right)
      return on(above.left, above.operatorToken.kind === ts5.SyntaxKind.AmpersandAmpersandToken);
    if ((ts5.isWhileStatement(above) || ts5.isDoStatement(above)) && at === above.statement)
      return on(above.expression, true);
    if (ts5.isForStatement(above) && at !== above.initializer && above.condition !== void 0 && at !== above.condition)
      return on(above.condition, true);
    if ((ts5.isForOfStatement(above) || ts5.isForInStatement(above)) && at === above.statement)
      return { site: this.#site(above, "item"), holds: null };
    if (ts5.isCaseClause(above) || ts5.isDefaultClause(above))
      return { site: this.#site(above.parent.parent.expression, "switch"), holds: null };
    if (ts5.isCatchClause(above) && at === above.block)
      return { site: this.#site(above, "item"), holds: null };
    return null;
  }
};
function cut(text3) {
  const flat = text3.replace(/\s+/g, " ");
  return flat.length > 80 ? `${flat.slice(0, 79)}\u2026` : flat;
}
function boundNames(name2) {
  if (ts5.isIdentifier(name2)) return name2.text === "this" ? [] : [name2];
  return name2.elements.flatMap((one) => ts5.isBindingElement(one) ? boundNames(one.name) : []);
}
function itemNames({ initializer: initializer3 }) {
  return ts5.isVariableDeclarationList(initializer3) ? initializer3.declarations.flatMap(({ name: name2 }) => boundNames(name2).map(({ text: text3 }) => text3)) : [];
}
function rootOf(node2) {
  let root = node2;
  while (ts5.isPropertyAccessExpression(root) || ts5.isElementAccessExpression(root) || ts5.isCallExpression(root) || ts5.isNonNullExpression(root) || ts5.isParenthesizedExpression(root) || ts5.isAsExpression(root))
    root = root.expression;
  return ts5.isIdentifier(root) ? root : null;
}
function isAssignment(kind) {
  return kind >= ts5.SyntaxKind.FirstAssignment && kind <= ts5.SyntaxKind.LastAssignment;
}
function isDeclared({ parent }) {
  return ts5.isVariableDeclaration(parent) || ts5.isParameter(parent);
}
function methodGiven({ parent }) {
  return parent !== void 0 && ts5.isCallExpression(parent) && ts5.isPropertyAccessExpression(parent.expression) ? parent.expression.name.text : null;
}
function isOptionalChain(node2) {
  return (node2.flags & ts5.NodeFlags.OptionalChain) !== 0;
}
function ownerNear(node2) {
  for (let at = node2; ; at = at.parent) {
    const above = at.parent;
    if (above === void 0) return ts5.isSourceFile(at) ? null : at;
    if (ts5.isFunctionLike(above) && "body" in above && above.body === at) return above;
    if (ts5.isSourceFile(above)) return above;
  }
}
function ownerAbove(node2) {
  return ts5.isSourceFile(node2) ? null : ownerNear(node2);
}

// src/core/language/instrument.ts
var PROBE = "__probe";
function instrument(expressions, sites = null) {
  return (context) => (file2) => {
    const { factory: f } = context;
    const traced = expressions !== null;
    const numberOf = (what) => {
      const known2 = expressions.indexOf(what);
      return known2 < 0 ? expressions.push(what) - 1 : known2;
    };
    const lineOf = (node2) => file2.getLineAndCharacterOfPosition(node2.getStart(file2)).line + 1;
    const call = (method, ...args) => f.createCallExpression(
      f.createPropertyAccessExpression(f.createIdentifier(PROBE), method),
      void 0,
      args
    );
    const num = (n2) => f.createNumericLiteral(n2);
    let details = sites === null ? null : new Details(file2, f, call);
    const all = details;
    const visited = (node2) => ts6.visitNode(node2, visit);
    const given = (node2) => details === null ? visited(node2) : details.returned(node2, visited(node2));
    const mark = (line2) => f.createExpressionStatement(
      traced ? call("s", num(line2)) : f.createAssignment(
        f.createPropertyAccessExpression(f.createIdentifier(PROBE), "l"),
        num(line2)
      )
    );
    const burn = (line2) => f.createExpressionStatement(call("f", num(line2)));
    const value = (node2, done2, what) => traced ? call("v", num(lineOf(node2)), num(numberOf(what.slice(0, 80))), done2) : call("at", num(lineOf(node2)), done2);
    const marked = (statements2) => statements2.flatMap((statement) => {
      if (isAsked(statement)) {
        details = null;
        const asked2 = ts6.visitNode(statement, visit);
        details = all;
        return [asked2];
      }
      const done2 = ts6.visitNode(statement, visit);
      return isDeclaration(statement) || ts6.isBlock(statement) ? [done2] : [
        mark(lineOf(statement)),
        ...details === null ? [] : [details.statement(statement)],
        done2
      ];
    });
    const loopBody = (body) => {
      const inner = ts6.isBlock(body) ? marked(body.statements) : marked([body]);
      const { parent } = body;
      const item = details !== null && (ts6.isForOfStatement(parent) || ts6.isForInStatement(parent)) ? [details.item(parent)] : [];
      return f.createBlock([burn(lineOf(body)), ...item, ...inner], true);
    };
    const told = (node2, statements2) => details === null ? statements2 : [
      details.enter(node2),
      f.createTryStatement(
        f.createBlock(statements2, true),
        void 0,
        f.createBlock([details.leave])
      )
    ];
    const functionBody = (node2, counted2) => {
      const { body } = node2;
      const inner = told(node2, marked(body.statements));
      const line2 = lineOf(body);
      if (!counted2) return f.createBlock([burn(line2), ...inner], true);
      const enter = f.createExpressionStatement(call("in", num(line2)));
      const leave = f.createBlock([f.createExpressionStatement(call("out"))]);
      return f.createBlock(
        [f.createTryStatement(f.createBlock([enter, ...inner], true), void 0, leave)],
        true
      );
    };
    const isPlain = (node2) => !node2.modifiers?.some((m) => m.kind === ts6.SyntaxKind.AsyncKeyword) && !("asteriskToken" in node2 && node2.asteriskToken);
    const single = (statement) => ts6.isBlock(statement) ? ts6.visitNode(statement, visit) : f.createBlock(marked([statement]), true);
    const condition = (node2) => {
      const done2 = visited(node2);
      const told2 = traced ? value(node2, done2, node2.getText(file2)) : done2;
      return details === null ? told2 : details.condition(node2, told2);
    };
    const asGenerator = (node2, statements2) => {
      const generator = f.createFunctionExpression(
        void 0,
        f.createToken(ts6.SyntaxKind.AsteriskToken),
        void 0,
        void 0,
        [],
        void 0,
        f.createBlock(statements2, true)
      );
      const args = ts6.isArrowFunction(node2) ? f.createArrayLiteralExpression([]) : f.createIdentifier("arguments");
      return f.createBlock(
        [f.createReturnStatement(call("go", f.createThis(), generator, args))],
        true
      );
    };
    const isParent = declaresParent(file2) ? () => false : isParentUse;
    function visit(node2) {
      if (ts6.isAwaitExpression(node2)) {
        const wait = (operand2) => call("at", num(lineOf(node2)), f.createYieldExpression(void 0, operand2));
        const operand = visited(node2.expression);
        return details === null ? wait(operand) : details.wait(operand, wait);
      }
      if (details !== null && ts6.isYieldExpression(node2) && node2.asteriskToken === void 0)
        return details.wait(
          node2.expression === void 0 ? f.createVoidZero() : visited(node2.expression),
          (operand) => f.createYieldExpression(void 0, operand)
        );
      if (ts6.isIdentifier(node2) && isParent(node2)) return call("parent");
      if (ts6.isShorthandPropertyAssignment(node2) && node2.name.text === "parent" && !declaresParent(file2))
        return f.createPropertyAssignment("parent", call("parent"));
      if (ts6.isBlock(node2)) return f.updateBlock(node2, marked(node2.statements));
      if (ts6.isCaseClause(node2)) {
        return f.updateCaseClause(node2, visited(node2.expression), marked(node2.statements));
      }
      if (details !== null && ts6.isSwitchStatement(node2))
        return f.updateSwitchStatement(
          node2,
          details.condition(node2.expression, visited(node2.expression), "switch"),
          ts6.visitNode(node2.caseBlock, visit)
        );
      if (details !== null && ts6.isCatchClause(node2)) {
        const block = f.updateBlock(node2.block, [
          details.caught(node2),
          ...marked(node2.block.statements)
        ]);
        return f.updateCatchClause(node2, node2.variableDeclaration, block);
      }
      if (details !== null && ts6.isExpression(node2)) {
        const compared = details.comparison(
          node2,
          visited,
          (argument) => canMoveLine(argument) ? call("at", num(lineOf(node2)), visited(argument)) : visited(argument)
        );
        if (compared !== null) return compared;
        if (ts6.isBinaryExpression(node2)) {
          const chosen = details.choosing(node2, visited);
          if (chosen !== null) return chosen;
        }
      }
      if (ts6.isDefaultClause(node2)) return f.updateDefaultClause(node2, marked(node2.statements));
      if (ts6.isIfStatement(node2)) {
        return f.updateIfStatement(
          node2,
          condition(node2.expression),
          single(node2.thenStatement),
          node2.elseStatement && single(node2.elseStatement)
        );
      }
      if (ts6.isIterationStatement(node2, false)) return visitLoop(node2);
      if (ts6.isArrowFunction(node2)) return visitArrow(node2);
      if (isFunctionWithBody(node2)) return visitFunction(node2);
      if (ts6.isThrowStatement(node2)) {
        const operand = visited(node2.expression);
        return f.updateThrowStatement(node2, call("t", num(lineOf(node2)), operand));
      }
      if (ts6.isBinaryExpression(node2) && isAssignment2(node2)) {
        const right2 = visited(node2.right);
        const left = visited(node2.left);
        return f.updateBinaryExpression(
          node2,
          left,
          node2.operatorToken,
          value(node2, right2, node2.left.getText(file2))
        );
      }
      if (ts6.isVariableDeclaration(node2) && node2.initializer !== void 0 && !isFunctionExpression(node2.initializer)) {
        const initializer3 = ts6.visitNode(node2.initializer, visit);
        return f.updateVariableDeclaration(
          node2,
          node2.name,
          void 0,
          void 0,
          value(node2, initializer3, node2.name.getText(file2))
        );
      }
      if (ts6.isReturnStatement(node2) && node2.expression !== void 0 && traced) {
        const returned = value(node2, visited(node2.expression), "return");
        return f.updateReturnStatement(
          node2,
          details === null ? returned : details.returned(node2.expression, returned)
        );
      }
      if (ts6.isConditionalExpression(node2)) {
        const done2 = ts6.visitEachChild(node2, visit, context);
        return f.updateConditionalExpression(
          node2,
          condition(node2.condition),
          done2.questionToken,
          done2.whenTrue,
          done2.colonToken,
          done2.whenFalse
        );
      }
      if (ts6.isCallExpression(node2) && node2.arguments.some(canMoveLine)) {
        const done2 = ts6.visitEachChild(node2, visit, context);
        const last = done2.arguments.length - 1;
        if (ts6.isSpreadElement(done2.arguments[last])) return done2;
        const args = done2.arguments.map(
          (arg, i) => i === last ? call("at", num(lineOf(node2)), arg) : arg
        );
        return f.updateCallExpression(done2, done2.expression, done2.typeArguments, args);
      }
      return ts6.visitEachChild(node2, visit, context);
    }
    function visitLoop(node2) {
      const until = details === null ? null : ts6.isWhileStatement(node2) || ts6.isDoStatement(node2) ? node2.expression : ts6.isForStatement(node2) ? node2.condition ?? null : null;
      const inner = ts6.visitEachChild(
        node2,
        (child) => child === node2.statement ? child : child === until ? details.condition(until, visited(until)) : visit(child),
        context
      );
      const body = loopBody(node2.statement);
      if (ts6.isForStatement(inner))
        return f.updateForStatement(
          inner,
          inner.initializer,
          inner.condition,
          inner.incrementor,
          body
        );
      if (ts6.isForOfStatement(inner))
        return f.updateForOfStatement(
          inner,
          inner.awaitModifier,
          inner.initializer,
          inner.expression,
          body
        );
      if (ts6.isForInStatement(inner))
        return f.updateForInStatement(inner, inner.initializer, inner.expression, body);
      if (ts6.isWhileStatement(inner)) return f.updateWhileStatement(inner, inner.expression, body);
      return f.updateDoStatement(
        inner,
        body,
        inner.expression
      );
    }
    function visitArrow(node2) {
      const parameters = ts6.visitNodes(
        node2.parameters,
        visit
      );
      const rebuild = (body2) => f.updateArrowFunction(
        node2,
        withoutAsync(node2.modifiers),
        node2.typeParameters,
        parameters,
        void 0,
        node2.equalsGreaterThanToken,
        body2
      );
      if (isAsync(node2)) {
        const statements2 = ts6.isBlock(node2.body) ? functionBody(node2, false).statements : [
          burn(lineOf(node2.body)),
          ...told(node2, [
            ...details === null ? [] : [details.statement(node2.body)],
            f.createReturnStatement(given(node2.body))
          ])
        ];
        return rebuild(asGenerator(node2, statements2));
      }
      if (ts6.isBlock(node2.body))
        return rebuild(functionBody(node2, isPlain(node2)));
      const body = given(node2.body);
      const line2 = num(lineOf(node2.body));
      if (!callsByName(node2.body)) {
        const costs = traced ? [call("s", line2), call("f", line2)] : [call("f", line2)];
        if (details !== null)
          return rebuild(
            f.createBlock(
              told(node2, [
                ...costs.map((cost) => f.createExpressionStatement(cost)),
                details.statement(node2.body),
                f.createReturnStatement(body)
              ]),
              true
            )
          );
        return rebuild(
          f.createParenthesizedExpression(
            f.createComma(
              costs.length === 1 ? costs[0] : f.createComma(costs[0], costs[1]),
              body
            )
          )
        );
      }
      const returns = told(node2, [
        ...details === null ? [] : [details.statement(node2.body)],
        f.createReturnStatement(body)
      ]);
      if (!isPlain(node2)) return rebuild(f.createBlock(returns, true));
      const enter = f.createExpressionStatement(call("in", line2));
      const leave = f.createBlock([f.createExpressionStatement(call("out"))]);
      return rebuild(
        f.createBlock(
          [f.createTryStatement(f.createBlock([enter, ...returns], true), void 0, leave)],
          true
        )
      );
    }
    function visitFunction(node2) {
      const counted2 = functionBody(node2, isPlain(node2) && !ts6.isConstructorDeclaration(node2));
      const body = isAsync(node2) ? asGenerator(node2, counted2.statements) : counted2;
      return ts6.visitEachChild(
        node2,
        (child) => child === node2.body ? body : child.kind === ts6.SyntaxKind.AsyncKeyword ? void 0 : visit(child),
        context
      );
    }
    const statements = marked(file2.statements);
    if (all === null) return f.updateSourceFile(file2, statements);
    const [imports, rest] = [
      statements.filter(ts6.isImportDeclaration),
      statements.filter((statement) => !ts6.isImportDeclaration(statement))
    ];
    const { prologue } = all;
    sites.push(...all.sites);
    return f.updateSourceFile(file2, [...imports, prologue, ...rest]);
  };
}
function isAsked(node2) {
  return ts6.isExpressionStatement(node2) && ts6.isCallExpression(node2.expression) && ts6.isPropertyAccessExpression(node2.expression.expression) && ts6.isIdentifier(node2.expression.expression.expression) && node2.expression.expression.expression.text === PROBE;
}
function isAsync(node2) {
  return node2.modifiers?.some((modifier) => modifier.kind === ts6.SyntaxKind.AsyncKeyword) ?? false;
}
function withoutAsync(modifiers) {
  return modifiers?.filter(
    (modifier) => ts6.isModifier(modifier) && modifier.kind !== ts6.SyntaxKind.AsyncKeyword
  );
}
function declaresParent(file2) {
  const look = (node2) => {
    const declares = (ts6.isVariableDeclaration(node2) || ts6.isParameter(node2) || ts6.isBindingElement(node2) || ts6.isFunctionDeclaration(node2)) && node2.name !== void 0 && ts6.isIdentifier(node2.name) && node2.name.text === "parent";
    return declares || (ts6.forEachChild(node2, look) ?? false);
  };
  return look(file2);
}
function isParentUse(node2) {
  const { parent } = node2;
  if (node2.text !== "parent") return false;
  if (ts6.isPropertyAccessExpression(parent) && parent.name === node2) return false;
  return !(ts6.isPropertyAssignment(parent) && parent.name === node2) && !ts6.isMethodDeclaration(parent) && !ts6.isTypeNode(parent);
}
function isFunctionWithBody(node2) {
  return ts6.isFunctionLike(node2) && "body" in node2 && node2.body !== void 0 && ts6.isBlock(node2.body);
}
function isFunctionExpression(node2) {
  return ts6.isArrowFunction(node2) || ts6.isFunctionExpression(node2);
}
function isDeclaration(node2) {
  return ts6.isFunctionDeclaration(node2) || ts6.isInterfaceDeclaration(node2) || ts6.isTypeAliasDeclaration(node2) || ts6.isImportDeclaration(node2) || ts6.isEmptyStatement(node2);
}
function isAssignment2(node2) {
  const { kind } = node2.operatorToken;
  return kind >= ts6.SyntaxKind.FirstAssignment && kind <= ts6.SyntaxKind.LastAssignment && !ts6.isObjectLiteralExpression(node2.left) && !ts6.isArrayLiteralExpression(node2.left);
}
function canMoveLine(node2) {
  if (isFunctionExpression(node2)) return false;
  return ts6.isCallExpression(node2) || (ts6.forEachChild(node2, canMoveLine) ?? false);
}
function callsByName(node2) {
  if (ts6.isCallExpression(node2) && ts6.isIdentifier(node2.expression)) return true;
  return ts6.forEachChild(node2, callsByName) ?? false;
}

// src/core/language/modules.ts
import ts7 from "typescript-classic";
var EXAMPLE = 'import { daysBetween } from "shared/dates"';
function moduleFault(node2, inModule) {
  if (ts7.isImportDeclaration(node2)) return importFault(node2);
  if (ts7.isImportEqualsDeclaration(node2))
    return `imports by require, which scripts cannot. Import by name, such as ${EXAMPLE}.`;
  if (ts7.isCallExpression(node2) && node2.expression.kind === ts7.SyntaxKind.ImportKeyword)
    return `imports while it runs, which scripts cannot. Import by name at the top, such as ${EXAMPLE}.`;
  if (ts7.isExportDeclaration(node2) || ts7.isExportAssignment(node2))
    return inModule ? "exports a list or a default. Write export before each function or constant instead." : NOT_EXPORTED;
  if (!isExported(node2)) return null;
  if (!inModule) return NOT_EXPORTED;
  if (hasModifier(node2, ts7.SyntaxKind.DefaultKeyword))
    return "exports a default. Behaviours import by name: leave default out.";
  if (ts7.isVariableStatement(node2) && (node2.declarationList.flags & ts7.NodeFlags.Const) === 0)
    return "exports a variable that can change. Export a constant or a function: what scripts share must not depend on which of them ran last.";
  return null;
}
var NOT_EXPORTED = "has an export, which only shared modules have (shared/NAME.ts).";
function importFault({ importClause, moduleSpecifier }) {
  const from = ts7.isStringLiteral(moduleSpecifier) ? moduleSpecifier.text : "";
  if (!from.startsWith(MODULES))
    return `imports from "${from}". Scripts import from shared modules alone, such as ${EXAMPLE}.`;
  const bindings = importClause?.namedBindings;
  return importClause === void 0 || importClause.name !== void 0 || bindings === void 0 || !ts7.isNamedImports(bindings) ? `imports a module as a whole. Import by name, such as ${EXAMPLE}.` : null;
}
function hasModifier(node2, kind) {
  return ts7.canHaveModifiers(node2) && ts7.getModifiers(node2)?.some((m) => m.kind === kind) === true;
}
function isExported(node2) {
  return hasModifier(node2, ts7.SyntaxKind.ExportKeyword);
}
var asFunctionBody = (context) => (file2) => {
  const { factory: f } = context;
  const exported = [];
  const imports = file2.statements.filter(ts7.isImportDeclaration).flatMap((node2) => asked(f, node2));
  const rest = file2.statements.flatMap((node2) => {
    if (ts7.isImportDeclaration(node2)) return [];
    if (!isExported(node2)) return [node2];
    exported.push(...namesOf(node2));
    return [withoutExport(f, node2)];
  });
  const returned = f.createReturnStatement(
    f.createObjectLiteralExpression(
      exported.map((name2) => f.createShorthandPropertyAssignment(name2))
    )
  );
  return f.updateSourceFile(file2, [
    ...imports,
    ...rest,
    ...exported.length === 0 ? [] : [returned]
  ]);
};
function asked(f, node2) {
  const bindings = node2.importClause?.namedBindings;
  if (node2.importClause?.isTypeOnly === true || bindings === void 0) return [];
  const names = bindings.elements.filter((one) => !one.isTypeOnly);
  const pattern = f.createObjectBindingPattern(
    names.map(
      ({ propertyName, name: name2 }) => f.createBindingElement(void 0, propertyName, f.createIdentifier(name2.text))
    )
  );
  const call = f.createCallExpression(f.createIdentifier("__shared"), void 0, [
    f.createStringLiteral(node2.moduleSpecifier.text)
  ]);
  return [
    f.createVariableStatement(
      void 0,
      f.createVariableDeclarationList(
        [f.createVariableDeclaration(pattern, void 0, void 0, call)],
        ts7.NodeFlags.Const
      )
    )
  ];
}
function namesOf(node2) {
  if (ts7.isVariableStatement(node2))
    return node2.declarationList.declarations.flatMap(({ name: name2 }) => bound(name2));
  if (ts7.isFunctionDeclaration(node2) && node2.body === void 0) return [];
  return (ts7.isFunctionDeclaration(node2) || ts7.isClassDeclaration(node2) || ts7.isEnumDeclaration(node2)) && node2.name !== void 0 && !hasModifier(node2, ts7.SyntaxKind.DeclareKeyword) ? [node2.name.text] : [];
}
function bound(name2) {
  if (ts7.isIdentifier(name2)) return [name2.text];
  return name2.elements.flatMap((one) => ts7.isOmittedExpression(one) ? [] : bound(one.name));
}
function withoutExport(f, node2) {
  const modifiers = ts7.canHaveModifiers(node2) ? ts7.getModifiers(node2)?.filter(({ kind }) => kind !== ts7.SyntaxKind.ExportKeyword) : void 0;
  if (ts7.isVariableStatement(node2))
    return f.updateVariableStatement(node2, modifiers, node2.declarationList);
  if (ts7.isFunctionDeclaration(node2))
    return f.updateFunctionDeclaration(
      node2,
      modifiers,
      node2.asteriskToken,
      node2.name,
      node2.typeParameters,
      node2.parameters,
      node2.type,
      node2.body
    );
  if (ts7.isClassDeclaration(node2))
    return f.updateClassDeclaration(
      node2,
      modifiers,
      node2.name,
      node2.typeParameters,
      node2.heritageClauses,
      node2.members
    );
  if (ts7.isEnumDeclaration(node2))
    return f.updateEnumDeclaration(node2, modifiers, node2.name, node2.members);
  return f.createNotEmittedStatement(node2);
}

// src/core/language/watches.ts
import ts8 from "typescript-classic";

// src/core/language/compile.ts
var TOO_DEEP = "is nested too deep to be read. Take parts of it out into functions or constants of their own.";
var OPTIONS = {
  target: ts9.ScriptTarget.ES2022,
  module: ts9.ModuleKind.ESNext,
  alwaysStrict: false,
  removeComments: true,
  isolatedModules: true
};
function compile(source, mode) {
  return compiled(source, source.text, mode === "traced" ? [] : null, null);
}
function compiled(source, text3, expressions, sites) {
  const base = { name: baseName(source.name), title: readHeader(source).title };
  const fault = faultIn(source);
  if (fault !== null)
    return { ...base, code: null, expressions: [], failure: { code: "syntax", ...fault } };
  const { outputText } = ts9.transpileModule(text3, {
    fileName: source.name,
    compilerOptions: OPTIONS,
    jsDocParsingMode: ts9.JSDocParsingMode.ParseNone,
    transformers: { before: [instrument(expressions, sites), asFunctionBody] }
  });
  return {
    ...base,
    code: outputText.replace(/^export \{\};?\s*$/m, ""),
    expressions: expressions ?? [],
    failure: null
  };
}
function faultIn(source) {
  const { file: file2, tooDeep } = parse(source);
  return tooDeep === null ? syntaxFault(file2) : { says: TOO_DEEP, line: tooDeep };
}
var HIDDEN = /* @__PURE__ */ new Set(["eval", "__probe", "__shared", "__frame"]);
function syntaxFault(file2) {
  const { parseDiagnostics } = file2;
  const lineAt = (position) => file2.getLineAndCharacterOfPosition(position).line + 1;
  const first = parseDiagnostics[0];
  if (first !== void 0) {
    return {
      says: `does not parse: ${ts9.flattenDiagnosticMessageText(first.messageText, " ")}`,
      line: lineAt(first.start)
    };
  }
  return forbidden(file2, lineAt);
}
function forbidden(file2, lineAt) {
  const found2 = (node2, says) => ({ says, line: lineAt(node2.getStart(file2)) });
  const look = (node2) => {
    const wrong = moduleFault(node2, isModule(file2.fileName));
    if (wrong !== null) return found2(node2, wrong);
    if (ts9.isIdentifier(node2) && HIDDEN.has(node2.text) && !isPropertyName(node2)) {
      return found2(node2, `uses the name ${node2.text}, which scripts cannot.`);
    }
    if (ts9.isForOfStatement(node2) && node2.awaitModifier !== void 0)
      return found2(
        node2,
        "has a for await loop, which scripts cannot. Await each item in a plain loop."
      );
    if (ts9.isFunctionLike(node2) && "asteriskToken" in node2 && node2.asteriskToken !== void 0 && ts9.canHaveModifiers(node2) && ts9.getModifiers(node2)?.some((m) => m.kind === ts9.SyntaxKind.AsyncKeyword)) {
      return found2(node2, "has an async generator, which scripts cannot. Use an async function.");
    }
    if (ts9.isWithStatement(node2)) return found2(node2, "has a with statement, which scripts cannot.");
    return ts9.forEachChild(node2, look) ?? null;
  };
  return look(file2);
}
function isPropertyName(node2) {
  return ts9.isPropertyAccessExpression(node2.parent) && node2.parent.name === node2;
}

// src/core/script/imports.ts
var FROM = new RegExp(`\\bfrom\\s*(['"])(${MODULES}[^'"\\n]+)\\1`, "g");
function importsOf(text3) {
  return [...new Set([...text3.matchAll(FROM)].map((match) => match[2]))];
}
function modulesUsed(sources) {
  const modules = new Map(
    sources.flatMap(
      (source) => isModule(source.name) ? [[baseName(source.name), source]] : []
    )
  );
  const used = /* @__PURE__ */ new Set();
  const met = /* @__PURE__ */ new Set();
  const take = (text3) => {
    for (const name2 of importsOf(text3)) {
      const found2 = modules.get(name2);
      if (found2 === void 0 || met.has(name2)) continue;
      met.add(name2);
      take(found2.text);
      used.add(found2);
    }
  };
  for (const { text: text3 } of takingPart(sources)) take(text3);
  return [...used];
}

// src/core/script/service-sources.ts
function servicesAsSources(services) {
  return services.flatMap(
    (service) => Object.entries(service.functions).flatMap(([name2, { parameters, answers: answers2 }]) => {
      if (answers2.from !== "script") return [];
      const text3 = `const { ${parameters.map((parameter) => parameter.name).join(", ")} } = parameters; ${answers2.script}`;
      return [
        { name: `${service.name}.${name2}`, source: { name: `${service.name}.${name2}.ts`, text: text3 } }
      ];
    })
  );
}

// src/core/language/material.ts
function materialOf(form2, { tables, services }, sources, mode) {
  return {
    form: form2,
    tables,
    services,
    answering: servicesAsSources(services).map(({ name: name2, source }) => ({
      ...compile(source, "untraced"),
      name: name2
    })),
    scripts: takingPart(sources).map((source) => compile(source, mode)),
    modules: modulesUsed(sources).map((source) => compile(source, mode)),
    traced: mode === "traced"
  };
}

// src/core/sandbox/quickjs.ts
import variant from "@jitl/quickjs-wasmfile-release-sync";
import {
  newQuickJSWASMModuleFromVariant,
  newVariant
} from "quickjs-emscripten-core";

// src/core/wire/layout.ts
var SHARED_BYTES = 8192;
var TRACE_LIMIT = SHARED_BYTES / 4 - 8;
var SLOT_BITS = 5;
var SLOTS = 30;
var LONGEST_NUMBERED = 256;
var MOST_TEXTS = 5e4;
var MOST_CHARACTERS = 2e6;
var STRANGE_KEY = "";
var BY = ["person", "script", "form"];
var TIED_TO = {
  load: "form",
  submit: "form",
  saved: "form",
  pageChange: "form",
  change: "field",
  input: "field",
  focus: "field",
  blur: "field",
  click: "button",
  rowAdded: "rows",
  rowRemoved: "rows"
};
var VALUES_KEPT = 200;

// src/core/sandbox/generated/guest.ts
var guest = '"use strict";(()=>{function Ae(n){let e=()=>{throw new TypeError};for(let r of[function(){},async function(){},function*(){},async function*(){}])Object.defineProperty(Object.getPrototypeOf(r),"constructor",{value:e});let t=new Set,s=r=>{if(!(typeof r!="object"&&typeof r!="function"||r===null||t.has(r))){t.add(r),Object.freeze(r),s(Object.getPrototypeOf(r));for(let o of Object.values(Object.getOwnPropertyDescriptors(r)))s(o.value),s(o.get),s(o.set)}};s(n);for(let r of[[][Symbol.iterator](),new Map().entries(),new Set().values(),"".matchAll(/./g),async function(){},function*(){}])s(Object.getPrototypeOf(r));s(globalThis)}function Re(n){return n==null||Array.isArray(n)&&n.length===0}function B(n){if(typeof n=="object"&&n!==null&&!Object.isFrozen(n)){Object.freeze(n);for(let e of Object.values(n))B(e)}return n}function I(n){return n==null?"nothing":typeof n=="string"?JSON.stringify(n.length>60?`${n.slice(0,57)}\\u2026`:n):typeof n=="boolean"?n?"yes (true)":"no (false)":typeof n=="number"?String(n):typeof n=="function"?"a function":Array.isArray(n)?n.length===0?"an empty list":`a list of ${n.length}`:"an object"}var bt=Date.UTC(9998,11,31),gt=2*1048576,wt=32*1048576,ht=32*1048576,yt=60*1024,kt=30*1e3,St=120*1e3,Tt=60*1e3,xt=300*1e3;var Et=256*1024,Ot=8*1048576;var be=["syntax","thrown","type","name","range","fuel","depth","memory","stuck","wrong_value","wrong_use","cycle","async","service","module"],P=class extends Error{constructor(t,s){super(s);this.code=t}code},L=class extends Error{constructor(t,s){super(k.serviceFailed(t,s));this.reason=s;let[r,o]=t.split(".");this.service=r,this.function=o??""}reason;service;function},k={fuel:"ran too long without coming to an end. Look for a loop whose condition never becomes false.",depth:"called itself too deep. Look for a function that calls itself without an end.",memory:"used up the memory a form may have. Look for a list or text that grows in a loop.",stuck:"was stopped: it kept the form busy in a single built-in call. This behaviour is out until the script changes.",interrupted:"was stopped: it kept the form busy for too long. Look for a built-in function that is called with something very large.",type:"used a value in a way it does not allow: most often something empty (null or undefined) was read like an object, or something that is no function was called.",name:"uses a name that does not exist.",range:"gave a built-in function a number it does not take.",syntax:"does not parse as a script.",noModule:n=>`imports from "${n}", which the workspace does not have.`,moduleFailed:(n,e,t)=>`needs ${n}, which failed${e===null?"":` in line ${e}`}: it ${t}`,asyncRule:"waits (async), which a rule cannot: a rule says what holds now. Let a handler wait, and the rule read what it brought.",asyncService:"waits (async), which the script of a service cannot: what it returns is its answer.",notRow:n=>`${n} is not in the row that this rule runs for. A rule for each row says something of its own row alone.`,rowGone:n=>`${n} is in a row that was removed; it can be read, not written.`,noRow:(n,e)=>`${n}.remove() takes a row of ${n}, not ${I(e)}.`,noCell:(n,e,t)=>`${n} has no column "${e}". It has ${t.join(", ")}.`,notNumbers:(n,e)=>`${n}.sum("${e}") needs a column of numbers or money.`,noService:(n,e)=>`there is no service "${n}"${e===null?".":`. Is it "${e}"?`}`,noFunction:(n,e,t)=>`${n} has no function "${e}". It has ${t.join(", ")}.`,wrongArguments:(n,e)=>`${n}() ${e}`,serviceFailed:(n,e)=>`${n} failed: ${e}`,tooManyCalls:(n,e)=>`${n}() was called while ${e} calls wait already.`,waitedTooLong:n=>`Still waiting for ${n} after 30 seconds.`,noStage:(n,e,t)=>`${n}.stage takes one of ${e.map(s=>JSON.stringify(s)).join(", ")} or null, not ${I(t)}.`,noParentField:(n,e)=>`parent has no field "${n}": the form ${e} has none.`,topLevel:n=>`${n} at the top level of the script, where no form is open yet. Put it into on.load(() => \\u2026) or keep("\\u2026", () => \\u2026).`,askingOnly:"would change something. What is asked here reads only.",outside:n=>`${n} after its handler or rule had ended.`,readOnly:(n,e)=>`${n}.${e} can be read, not written.`,noAspect:(n,e,t)=>`${n} has no aspect "${e}". It has ${t.join(", ")}.`,noPart:(n,e,t)=>`there is no ${n} "${e}"${t===null?"":`. Is it "${t}"`}${t===null?".":"?"}`,assignPart:(n,e)=>`${n}s.${e} is the ${n} itself. ${n==="field"?`Write fields.${e}.value = \\u2026`:`Write to one of its aspects, such as ${n}s.${e}.shown = \\u2026`}`,wrongValue:(n,e,t,s,r)=>`${n} (${e}) takes ${t}, not ${I(s)}.${r===void 0?"":` ${r}`}${fn(s)}`,wrongAspect:(n,e,t,s)=>`${n}.${e} takes ${t}, not ${I(s)}.`,notInRule:n=>`${n} cannot be done in a rule: a rule says what holds, a handler does things.`,tieInside:n=>`${n} was called inside a handler. Tie it at the top level of the script, or inside on.load.`,stopTooLate:"event.stop() was called after the event was over.",submitInSubmit:"form.submit() was called while the form is being submitted.",cycle:n=>`ran ${n} times within one step: it kept changing values and did not settle. All that scripts did in this step was taken back.`};function fn(n){return(typeof n=="object"&&n!==null?Object.prototype.toString.call(n):"").startsWith("[object Temporal.")?" Use .toString() on it.":""}function ne(n,e){let t=null,s=3;for(let r of e){let o=dn(n,r);o<s&&([t,s]=[r,o])}return t}function dn(n,e){if(Math.abs(n.length-e.length)>2)return 3;let t=Array.from({length:e.length+1},(s,r)=>r);for(let s=1;s<=n.length;s++){let r=[s];for(let o=1;o<=e.length;o++)r[o]=Math.min(t[o]+1,r[o-1]+1,t[o-1]+(n[s-1]===e[o-1]?0:1));t=r}return t[e.length]}var _e=["person","script","form"],ge={load:"form",submit:"form",saved:"form",pageChange:"form",change:"field",input:"field",focus:"field",blur:"field",click:"button",rowAdded:"rows",rowRemoved:"rows"},Me=200;function Y(n,e){return Object.fromEntries(Object.entries(n).filter(([t])=>!e.includes(t)))}var M=class{#e;#n;constructor(e){this.#e=e.number<<5,this.#n=e}static behind(e){return typeof e=="object"&&e!==null&&#n in e?e.#n:null}static aspect(e,t,s,r){let{cells:o,call:i,texts:f,take:a,give:c}=t;return{enumerable:!0,get(){switch(o[0]=1,o[1]=this.#e+e,i(),o[2]){case 5:return f[o[3]];case 3:return!0;case 2:return!1;case 1:return null;default:return a(2,3,2)}},set:r?function(m){let w=this.#e;m===!0?o[2]=3:m===!1?o[2]=2:c(m),o[0]=2,o[1]=w+e,o[6]=s.probe.l,i(),o[2]>=12&&a(2,3,2)}:void 0}}static member(e){return{enumerable:!0,get(){return e(this.#n)}}}static read(e,t,{cells:s,call:r,take:o}){return s[0]=1,s[1]=(e.number<<5)+t,r(),o(2,3,2)}},Pe=new WeakMap;function ve(n){let e=M.behind(n);return e===null?null:Pe.get(Object.getPrototypeOf(n))(e)}function F(n,e,t){let s=Object.keys(n);class r extends M{}let{prototype:o}=r;delete o.constructor;for(let i of s){let f=n[i];Object.defineProperty(o,i,{...f,set:f.set??function(){e.readOnly(M.behind(this),i)}})}return Object.setPrototypeOf(o,new Proxy(Object.freeze(Object.create(null)),{get:(i,f,a)=>oe(f)?void 0:e.unknown(M.behind(a),String(f),s),set:(i,f,a,c)=>e.unknown(M.behind(c),String(f),s)})),Object.freeze(o),Pe.set(o,t),{face:i=>Object.freeze(new r(i))}}function oe(n){return typeof n=="symbol"||n==="then"||n==="toJSON"||n==="constructor"}function U(n,e){let t=Object.create(new Proxy(Object.freeze(Object.create(null)),{get:(s,r)=>oe(r)?void 0:e.unknown(String(r)),set:(s,r)=>e.unknown(String(r))}));for(let[s,r]of n)Object.defineProperty(t,s,{enumerable:!0,get:r,set:()=>e.assign(s)});return Object.freeze(t)}function Ie(n,e,t,s){let r=(a,c,m)=>{t.act(a);let w=m(),d=t.owner(),{promise:u,settle:l,waitedFor:h}=s.pending();return d.calls??=new Map,d.calls.set(w,b=>{if(b.ok)return l(b);let S=new L(c,b.reason);h()||d.ready(()=>{throw S}),l({ok:!1,reason:S})}),u},o=U(new Map(n.map(({name:a,functions:c})=>{let m=U(new Map(c.map(w=>{let d=`${a}.${w}`,u=l=>r(`services.${d}()`,d,()=>e.act("call",{service:a,function:w,args:l}));return[w,()=>u]})),{assign:w=>t.wrong(k.readOnly(`services.${a}`,w)),unknown:w=>t.wrong(k.noFunction(a,w,c))});return[a,()=>m]})),{assign:a=>t.wrong(k.readOnly("services",a)),unknown:a=>t.wrong(k.noService(a,ne(a,n.map(c=>c.name))))}),i=a=>typeof a!="number"||!(a>=0)||a>864e5?t.wrong(k.wrongArguments("after","takes milliseconds from 0 to a day.")):r("after()","after",()=>e.act("after",{milliseconds:a})),f=Object.freeze({get:a=>(t.demand("parent.get() was called"),e.act("parentGet",{name:String(a)})),set:(a,c)=>r("parent.set()","parent.set",()=>e.act("parentSet",{name:String(a),to:c??null}))});return{services:o,after:i,parent:()=>(t.demand("parent was read"),e.act("parent",null)?f:null)}}var mn=["Sun","Mon","Tue","Wed","Thu","Fri","Sat"],bn="Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec".split(" "),gn=/^(?:\\d{4}|[+-]\\d{6})(?:-\\d\\d(?:-\\d\\d)?)?T\\d\\d:\\d\\d(?::\\d\\d(?:\\.\\d+)?)?$/,wn=/^(?:\\d{4}|[+-]\\d{6})(?:-\\d\\d(?:-\\d\\d)?)?(?:T\\d\\d:\\d\\d.*)?$/,hn=/(?:Z|UT|UTC|GMT|[+-]\\d\\d:?\\d\\d)(?:\\s*\\([^)]*\\))?$/i,Ne=["FullYear","Month","Date","Hours","Minutes","Seconds","Milliseconds"],ae=n=>String(n).padStart(2,"0");function Le({now:n,wallClock:e}){let t=Date;function s(u){let[l,h,b,S,A,v]=e(u),y=new t(0);return y.setUTCFullYear(l,h-1,b),y.setUTCHours(S,A,v),y.getTime()-Math.floor(u/1e3)*1e3}let r=u=>Math.abs(u)<=864e13;function o(u){return new t(r(u)?u+s(u):NaN)}function i(u){if(!r(u))return NaN;let l=u-s(f(u-864e5)),h=u-s(f(u+864e5)),b=S=>r(S)&&S+s(S)===u;return b(h)&&!b(l)?h:l}let f=u=>Math.max(-864e13,Math.min(864e13,u));function a(u){let l=String(u).trim();return gn.test(l)?i(t.parse(`${l}Z`)):wn.test(l)||hn.test(l)?t.parse(l):i(t.parse(`${l} UTC`))}function c(u){if(u instanceof t)return u.getTime();let l=typeof u=="object"&&u!==null?(h=>typeof h=="object"?String(u):h)(u.valueOf()):u;return typeof l=="string"?a(l):new t(l).getTime()}class m extends t{constructor(...l){super(l.length===0?n():l.length===1?c(l[0]):i(t.UTC(...l)))}static now(){return n()}static parse(l){return a(l)}getTimezoneOffset(){let l=this.getTime();return r(l)?0-s(l)/6e4:NaN}getYear(){return this.getFullYear()-1900}setYear(l){let h=Math.trunc(Number(l));return this.setFullYear(h>=0&&h<=99?1900+h:h)}toString(){return this.#e(l=>`${se(l)} ${ie(l)} ${this.#n()}`)}toDateString(){return this.#e(se)}toTimeString(){return this.#e(l=>`${ie(l)} ${this.#n()}`)}toLocaleString(){return this.#e(l=>`${se(l)} ${ie(l)}`)}toLocaleDateString(){return this.#e(se)}toLocaleTimeString(){return this.#e(ie)}#e(l){let h=o(this.getTime());return Number.isNaN(h.getTime())?"Invalid Date":l(h)}#n(){let l=Math.round(s(this.getTime())/6e4),h=Math.abs(l);return`GMT${l<0?"-":"+"}${ae(Math.floor(h/60))}${ae(h%60)}`}}let w=m.prototype,d=(u,l)=>Object.defineProperty(w,u,{value:l,writable:!0,configurable:!0});for(let u of[...Ne,"Day"])d(`get${u}`,function(){return o(this.getTime())[`getUTC${u}`]()});for(let u of Ne)d(`set${u}`,function(...l){let h=o(this.getTime());return h[`setUTC${u}`](...l),this.setTime(i(h.getTime()))});return Object.freeze(w),Object.freeze(m)}function se(n){let e=n.getUTCFullYear(),t=`${e<0?"-":""}${String(Math.abs(e)).padStart(e<0?6:4,"0")}`;return`${mn[n.getUTCDay()]} ${bn[n.getUTCMonth()]} ${ae(n.getUTCDate())} ${t}`}function ie(n){return[n.getUTCHours(),n.getUTCMinutes(),n.getUTCSeconds()].map(ae).join(":")}function Fe({cells:n,floats:e,call:t,act:s},r,o){let i=c=>{let m=e[16];if(Number.isNaN(m))throw new P("wrong_use",k.topLevel(`${c} was asked`));return m},f=Object.create(null);for(let c of Object.getOwnPropertyNames(Math))f[c]=Math[c];return f.random=()=>(i("Math.random()"),n[0]=6,t(),e[2]),{Date:Le({now:()=>i("the time"),wallClock:c=>(i("the time zone"),s("zone",{zone:o(),at:c}))}),Math:Object.freeze(f),Temporal:r===null?void 0:a(r)};function a(c){let m=()=>c.Instant.fromEpochMilliseconds(i("the time")),w=(l=o())=>m().toZonedDateTimeISO(l),d=Object.freeze({instant:m,timeZoneId:()=>(i("the time zone"),o()),zonedDateTimeISO:w,plainDateISO:l=>w(l).toPlainDate(),plainTimeISO:l=>w(l).toPlainTime(),plainDateTimeISO:l=>w(l).toPlainDateTime()}),u={};for(let l of Object.getOwnPropertyNames(c))u[l]=c[l];return Object.freeze({...u,Now:d})}}var V=class{number;rule;probe;line;jobs=null;over=!1;main=null;calls=null;fault=null;constructor(e,t,s,r){this.number=e,this.rule=t,this.probe=s,this.line=r}ready(e){this.over||(this.jobs??=[]).push(e)}},ue=class{run=null;probe=null;topLevel=!1;fault(e){throw this.run!==null&&(this.run.fault??=e),e}aside(){let{run:e}=this,t=e?.fault??null;return()=>{e!==null&&(e.fault=t)}}wrong(e){return this.fault(new P("wrong_use",e))}demand(e){if(this.run===null)throw new P("wrong_use",this.topLevel?k.topLevel(e):k.outside(e));return this.run}act(e){this.demand(`${e} was called`).rule&&this.wrong(k.notInRule(e))}owner(){let e=this.demand("a promise was made");return e.rule?this.fault(new P("async",k.asyncRule)):e}};var J=()=>null,$e={shown:{of:["page","section","field","button","track","row"],takes:"yes or no",base:({hidden:n})=>n!==!0,stays:!0,told:!0,expected:!0,became:{yes:"shown",no:"hidden"}},value:{of:["field"],takes:"value",base:J,stays:!1,told:!0,expected:!0,became:"special"},required:{of:["field"],takes:"yes or no",base:({required:n})=>n===!0,stays:!0,told:!0,expected:!0,became:{yes:"required",no:"not required"}},locked:{of:["form","page","section","field","button","row"],takes:"yes or no",base:({locked:n})=>n===!0,stays:!0,told:!0,expected:!0,became:{yes:"locked",no:"unlocked"}},options:{of:["field"],takes:"options",base:J,stays:!0,told:!0,expected:!0,became:"special"},hint:{of:["field"],takes:"text or nothing",base:({hint:n})=>n??null,stays:!0,told:!0,expected:!0,became:"quoted"},warning:{of:["field","row"],takes:"text or nothing",base:({warning:n})=>n??null,stays:!0,told:!0,expected:!0,became:"quoted"},problem:{of:["field","row"],takes:"text or nothing",base:J,stays:!0,told:!0,expected:!0,became:"quoted"},label:{of:["button"],takes:"text",base:({label:n})=>n,stays:!0,told:!0,expected:!0,became:"quoted"},stage:{of:["track"],takes:"stage",base:({stage:n})=>n??null,stays:!0,told:!0,expected:!0,became:"quoted"},message:{of:["form"],takes:"message",base:J,stays:!1,told:!1,expected:!1,became:"quoted"},replaced:{of:["form"],takes:"replacement",base:J,stays:!1,told:!1,expected:!1,became:"special"}},yn=Object.keys($e),kn=n=>$e[n];var De=n=>yn.filter(e=>kn(e).of.includes(n));var Ce={shown:1,value:0,required:3,locked:2,options:4,hint:5,warning:6,problem:7,label:8,stage:9,message:22,replaced:23};function Be({wire:n,current:e,refusals:t,nested:s,ofField:r,read:o,withSaid:i,cell:f}){let a=[],c=new Map,m=new Map,w=new WeakMap,d=new Map,u=y=>{let p=new Map;return M.member(T=>{let E=p.get(T.number)??y(T);return p.set(T.number,E),E})},l=y=>y.info.columns,h=F({...Y(r,["previous","orphan","options","optionLabel","row"]),rows:M.member(b),count:o(17),each:u(S),add:u(y=>p=>{e.act(`fields.${y.name}.add()`);let[T,E]=n.act("addRow",{field:y.number,values:p??null});return v(T,y.number,E)}),remove:u(y=>p=>{e.act(`fields.${y.name}.remove()`);let T=M.behind(p);if(T===null||T.row===null)return e.wrong(k.noRow(y.name,p));n.act("removeRow",{field:y.number,row:T.row})}),sum:u(y=>p=>{let T=String(p),E=l(y).findIndex(O=>O.name===T);if(E<0)return e.wrong(k.noCell(y.name,T,l(y).map(O=>O.name)));let{kind:R}=l(y)[E];return R!=="number"&&R!=="money"?e.wrong(k.notNumbers(y.name,T)):(n.cells[7]=E,M.read(y,18,n))})},t,({name:y})=>`fields.${y}`);function b(y){let p=M.read(y,16,n),T=d.get(y.number);if(T!==void 0&&T.version===p)return T.faces;let E=n.act("rows",{field:y.number}),R=[];for(let O=0;O<E.length;O+=2)R.push(v(E[O],y.number,E[O+1]));return d.set(y.number,{version:p,faces:Object.freeze(R)}),R}function S(y){let p=l(y).map(({name:E})=>E),T=new Map(p.map(E=>{let R=Object.freeze({name:E});return w.set(R,[y.number,E]),[E,()=>R]}));return U(T,{assign:E=>e.wrong(k.readOnly(`${y.name}.each`,E)),unknown:E=>e.wrong(k.noCell(y.name,E,p))})}function A(y){let p=m.get(y.number);if(p!==void 0)return p;let T=l(y).map(({name:O})=>O),E=F(Object.fromEntries(l(y).map((O,N)=>[O.name,{...M.member(({number:z,name:ee})=>a[z+1+N]??=f.face({number:z+1+N,info:O,name:`${ee}.${O.name}`,row:z})),set(){e.wrong(k.assignPart("field",`${M.behind(this).name}.${O.name}`))}}])),{readOnly:t.readOnly,unknown:(O,N)=>e.wrong(k.noCell(y.name,N,T))},({name:O})=>`${O}.fields`),R=F(i("row",{fields:u(O=>E.face(O)),values:o(19),index:o(20),...Y(s,["name","label"])}),t,({name:O})=>O);return m.set(y.number,R),R}function v(y,p,T){let E=a[y];if(E!=null)return E;let R=c.get(p),O={...R.info,sort:"row"};return a[y]=A(R).face({number:y,info:O,name:`${R.name}#${T}`,row:y})}return{fieldSurface:{face(y){return c.set(y.number,y),h.face(y)}},row:v,columnOf:y=>typeof y=="object"&&y!==null?w.get(y)??null:null}}function Ue(n,e,t,s){let r={readOnly:({name:b},S)=>t.wrong(k.readOnly(b,S)),unknown:({name:b},S,A)=>t.wrong(k.noAspect(b,S,A))},o=b=>M.aspect(b,e,t,!1),i=b=>M.aspect(Ce[b],e,t,!0),f=(b,S)=>({...S,...Object.fromEntries(De(b).filter(A=>!Object.hasOwn(S,A)).map(A=>[A,i(A)]))}),a=b=>M.read(b,0,e),c={name:M.member(({info:b})=>b.name),label:M.member(({info:b})=>b.label),shown:i("shown"),locked:i("locked"),onScreen:o(10),editable:o(11)},m=f("field",{...c,value:i("value"),previous:o(12),initial:o(13),empty:M.member(b=>Re(a(b))),orphan:o(14),required:i("required"),options:i("options"),optionLabel:o(15),row:M.member(b=>{let{kind:S,table:A}=b.info,v=a(b);return S==="reference"&&v!==null?s.find(A,String(v)):null})}),w=F(m,r,({row:b,name:S})=>b===null?`fields.${S}`:S),d=Be({wire:e,current:t,refusals:r,nested:c,ofField:m,read:o,withSaid:f,cell:w}),u={field:w,section:F(f("section",c),r,({name:b})=>`sections.${b}`),page:F({...f("page",c),open:M.member(({number:b,name:S})=>()=>{t.act(`pages.${S}.open()`),e.act("openPage",{page:b})})},r,({name:b})=>`pages.${b}`),track:F(f("track",Y(c,["locked","editable"])),r,({name:b})=>`tracks.${b}`),button:F(f("button",{...c,label:i("label")}),r,({name:b})=>`buttons.${b}`)},l=n.map((b,S)=>b.sort==="form"||b.sort==="row"?null:(b.columns===null?u[b.sort]:d.fieldSurface).face({number:S,info:b,name:b.name,row:null})),h=b=>{let S=new Map(n.flatMap((A,v)=>A.sort===b?[[A.name,()=>l[v]]]:[]));return U(S,{assign:A=>t.wrong(k.assignPart(b,A)),unknown:A=>t.wrong(k.noPart(b,A,ne(A,S.keys())))})};return{...d,globals:{fields:h("field"),sections:h("section"),pages:h("page"),tracks:h("track"),buttons:h("button")},part:b=>l[b],fixed:n.length}}var{ReferenceError:Sn,SyntaxError:Tn,RangeError:xn,Error:En}=globalThis,We=globalThis.InternalError??null,On="stack overflow",Ge=40;function le(n,e,t){return n instanceof P?{code:n.code,says:n.message}:n instanceof L?{code:"service",says:n.message}:e?{code:"thrown",says:`threw: ${An(n)}`}:n instanceof Sn?{code:"name",says:k.name}:n instanceof Tn?{code:"syntax",says:k.syntax}:n===null||We!==null&&n instanceof We?t>Ge||n?.message===On?{code:"depth",says:k.depth}:{code:"memory",says:k.memory}:n instanceof xn?t>Ge?{code:"depth",says:k.depth}:{code:"range",says:k.range}:{code:"type",says:k.type}}function An(n){try{return n instanceof En?String(n.message):typeof n=="string"?n:I(n)}catch{return"an object"}}var Rn={isNew:24,record:25,person:26,launch:27,viewing:28,changed:21},_n=new Set(["clear","reset","submit"]),Mn=new Set(["info","warning","error"]);function Ve(n,e){let{cells:t,call:s,take:r}=n,o=[],i=d=>e.wrong(d),f=Object.create(new Proxy(Object.freeze(Object.create(null)),{get:(d,u)=>oe(u)?void 0:i(k.noAspect("form",String(u),o)),set:(d,u)=>i(k.noAspect("form",String(u),o))})),a=(d,u)=>{o.push(d),Object.defineProperty(f,d,{enumerable:!0,get:u,set:()=>i(k.readOnly("form",d))})},c=(d,u)=>(t[0]=d,t[1]=u,s(),d===2&&t[2]<12?void 0:r(2,3,2)),m=(d,u)=>{n.give(u),t[6]=e.probe.l,c(2,d)};for(let[d,u]of Object.entries(Rn))a(d,()=>c(1,u));let w={clear:()=>n.act("clear",null),reset:()=>n.act("reset",null),message:(d,u="info")=>{if(typeof d!="string")return i(k.wrongAspect("form","message()","a text",d));if(!Mn.has(u))return i(k.wrongAspect("form","message()",\'the tone "info", "warning" or "error"\',u));e.demand("form.message() was called").rule?m(22,{text:d,tone:u}):n.act("message",{text:d,tone:u})},replaceWith:(d,u)=>{if(u===void 0)return m(23,d);let{final:l}=u??{};if(typeof u!="object"||typeof l!="boolean")return i(k.wrongArguments("form.replaceWith","takes { final: true } as its second argument: the last answer cannot be changed any more."));m(23,d==null||d===""?d:{text:d,final:l})},submit:()=>n.act("submit",null)};for(let[d,u]of Object.entries(w)){let l=(...h)=>{_n.has(d)?e.act(`form.${d}()`):e.demand(`form.${d}() was called`),u(...h)};a(d,()=>l)}return Object.freeze(f)}var jn=/^[a-zA-Z0-9.!#$%&\'*+/=?^_`{|}~-]+@[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?(?:\\.[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?)*$/;function He(n){return jn.test(n)}function Pn(n){return n.replace(/[A-Z]/g,e=>String(e.charCodeAt(0)-55))}function vn(n,e){let t=0;for(let s of n)t=(t*10+Number(s))%e;return t}var In={15:"NO",16:"BE",18:"AX DK FI FK FO GL NL SD",19:"MK SI",20:"AT BA EE KZ LT LU MN XK",21:"CH HR LI LV",22:"BG BH CR DE GB GE IE ME RS VA",23:"AE GI IL IQ OM SO TL",24:"AD CZ ES MD PK RO SA SE SK TN VG",25:"LY PT ST",26:"IS TR",27:"BI DJ FR GF GP GR IT MC MF MQ MR NC PF PM RE SM TF WF YT",28:"AL AZ BY CY DO GT HN HU LB NI PL SV",29:"BR EG PS QA UA",30:"JO KW MU YE",31:"MT SC",32:"LC",33:"RU"},Nn=new Map(Object.entries(In).flatMap(([n,e])=>e.split(" ").map(t=>[t,Number(n)])));function Ln(n){let e=n.replace(/ /g,"").toUpperCase();if(!/^[A-Z]{2}(?:0[2-9]|[1-8]\\d|9[0-8])[A-Z0-9]{8,30}$/.test(e))return!1;let t=Nn.get(e.slice(0,2));return t!==void 0&&e.length!==t?!1:vn(Pn(e.slice(4)+e.slice(0,4)),97)===1}function Fn(n){let e=n.replace(/[ -]/g,"");if(!/^\\d{2,}$/.test(e))return!1;let t=0;for(let s=0;s<e.length;s++){let r=Number(e[e.length-1-s]);t+=s%2===0?r:r>4?r*2-9:r*2}return t%10===0}function $n(n){if(n>="0"&&n<="9")return Number(n);let e=n.charCodeAt(0)-65;return 10+e+Math.floor((e+9)/10)}function Dn(n){let e=n.replace(/[ -]/g,"").toUpperCase();if(!/^[A-Z]{3}[UJZ]\\d{7}$/.test(e))return!1;let t=0;for(let s=0;s<10;s++)t+=$n(e[s])*2**s;return t%11%10===Number(e[10])}function Cn(n){let e=/^(?:IMO ?)?(\\d{7})$/i.exec(n.trim());if(e===null)return!1;let t=e[1],s=0;for(let r=0;r<6;r++)s+=Number(t[r])*(7-r);return s%10===Number(t[6])}function Bn(n){return/^\\+[1-9]\\d{1,14}$/.test(n.replace(/[ -]/g,""))}var ze={iban:Ln,luhn:Fn,container:Dn,imo:Cn,phone:Bn,email:He};function Ke(n,e){return n.length===e.length&&[...e].every((t,s)=>Ye(n[s],t))}function Ye(n,e){return e==="9"?/\\d/.test(n):e==="A"?/[A-Z]/.test(n):e==="*"?/[A-Z0-9]/.test(n):n===e}function Je(n,e){let t=[...n.toUpperCase()].filter(o=>/[A-Z0-9]/.test(o)),s="",r=0;for(let o of e){if(r>=t.length)break;if(o!=="9"&&o!=="A"&&o!=="*"){s+=o,t[r]===o&&r++;continue}for(;r<t.length&&!Ye(t[r],o);)r++;r<t.length&&(s+=t[r++])}return s}function Un(n){let[e,t="0"]=String(n).split("e"),[s,r=""]=e.split(".");return{digits:BigInt(s+r),exponent:Number(t)-r.length}}function Ze(n,e=0){if(!Number.isFinite(n))return n;if(!Number.isInteger(e))throw new RangeError("round: places must be a whole number");let{digits:t,exponent:s}=Un(n),r=-s-e;if(r<=0)return n+0===0?0:n;let o=t<0n?-t:t;if(r>o.toString().length)return 0;let i=10n**BigInt(r),f=(o+i/2n)/i,a=+`${t<0n?"-":""}${f}e${-e}`;return a===0?0:a}var fe=class{current;base;constructor(e,t){this.current=e,this.base=t}get probe(){return this.current.probe}set l(e){this.probe.l=this.base+e}s(e){this.probe.s(this.base+e)}f(e){this.probe.f(this.base+e)}in(e){this.probe.in(this.base+e)}out(){this.probe.out()}m(e){return this.probe.m(e)}go(e,t,s){return this.probe.go(e,t,s)}at(e,t){return this.probe.at(this.base+e,t)}v(e,t,s){return this.probe.v(this.base+e,t,s)}e(e,t){return this.probe.e(this.base+e,t)}x(e){this.probe.x(e)}z(e,t){return this.probe.z(e,t)}r(e,t){return this.probe.r(e,t)}d(e,t,s){this.probe.d(this.base+e,t,s)}b(e,t){this.probe.b(this.base+e,t)}c(e,t,s){return this.probe.c(this.base+e,t,s)}k(e,t,s){return this.probe.k(this.base+e,t,s)}o(e,t,s){return this.probe.o(this.base+e,t,s)}w(e,t){this.probe.w(e,t)}t(e,t){return this.probe.t(this.base+e,t)}};function C(n,e,t=0){switch(typeof n){case"string":return n.length>500?`${n.slice(0,500)}\\u2026`:n;case"boolean":return n;case"number":return Number.isFinite(n)?n:String(n);case"object":return n===null?null:Wn(n,e,t);case"function":return"a function";case"undefined":return null;default:return String(n)}}function Wn(n,e,t){let s=e(n);if(s!==null)return s;if(t>=4)return"\\u2026";try{if(n instanceof Error)return n.message;if(Object.prototype.toString.call(n).startsWith("[object Temporal.")||n instanceof Date)return String(n.toJSON());if(Array.isArray(n)){let i=n.slice(0,50).map(f=>C(f,e,t+1));return n.length>50?[...i,`\\u2026 ${n.length-50} more`]:i}let o=n instanceof Map?[...n]:Object.entries(n);return Object.fromEntries(o.slice(0,50).map(([i,f])=>[String(i),C(f,e,t+1)]))}catch{return"an object"}}var Vn="\\u2026";function we(n,e,t=0){let{readsAs:s,isProxy:r}=e;if(typeof n!="object"||n===null)return C(n,s);let o=s(n);if(o!==null)return o;if(t>=4)return"\\u2026";if(r(n))return"an object";let i=m=>we(m,e,t+1);if(n instanceof Error)return i(de(n,"message")??"an error");let f=Hn(n,e);if(f!==null)return f;if(Array.isArray(n)){let m=[];for(let w=0;w<n.length&&w<50;w++)m.push(i(de(n,w)));return n.length>50?[...m,`\\u2026 ${n.length-50} more`]:m}let a=[],c=(m,w)=>{a.length<50&&a.push([typeof m=="object"?"an object":String(m),i(w)])};if(n instanceof Map)Map.prototype.forEach.call(n,(m,w)=>c(w,m));else for(let m of Object.keys(n)){if(a.length>=50)break;c(m,de(n,m))}return Object.fromEntries(a)}function de(n,e){let t=Object.getOwnPropertyDescriptor(n,e);return t===void 0||"value"in t?t?.value:Vn}function Hn(n,{temporal:e}){if(n instanceof Date){let i=Date.prototype.getTime.call(n);return Number.isNaN(i)?"Invalid Date":Date.prototype.toISOString.call(n)}let t=Object.getPrototypeOf(n),s=t===null?void 0:de(t,Symbol.toStringTag);if(typeof s!="string"||!s.startsWith("Temporal."))return null;let o=e()?.[s.slice(9)]?.prototype;return o===t?String(o.toJSON.call(n)):null}function Jn(n){try{return String(n?.message??n)}catch{return"it failed"}}var H=class{l=0;fuel=25e4;depth=0;deepest=0;thrownByScript=null;traced=!1;detailed=!1;asks=!1;frames=0;watched=!1;tells=!1;values=0;script;around;cells;constructor(e,t){this.script=e,this.around=t,this.cells=t.wire.cells}get used(){return 25e4-(this.fuel>0?this.fuel:0)}begin(e,t){if(this.l=e,this.fuel=25e4,this.depth=0,this.deepest=0,this.thrownByScript=null,this.traced=(t&1)!==0,this.detailed=(t&2)!==0,this.asks=(t&4)!==0,this.values=0,this.cells[9]=64,this.watched=this.cells[31]===1,!this.watched||(this.tell(e),this.tells))return;this.tells=!0;let s=e;Object.defineProperty(this,"l",{get:()=>s,set:r=>{r!==s&&this.tell(r),s=r}})}tell(e){let{cells:t}=this;t[0]=8,t[7]=this.script,t[6]=e,this.around.wire.call()}next(){let{cells:e}=this;return e[9]>=2040&&(e[0]=7,this.around.wire.call(),e[9]=64),e[9]}s(e){if(this.l=e,!this.traced)return;let t=this.next();this.cells[t]=e,this.cells[9]=t+1}f(e){if(this.l=e,--this.fuel<0)throw new P("fuel",k.fuel)}in(e){if(this.l=e,--this.fuel<0)throw new P("fuel",k.fuel);if(++this.depth>this.deepest&&(this.deepest=this.depth),this.depth>100)throw new P("depth",k.depth)}out(){this.depth--}go(e,t,s){let{promises:r}=this.around;if(r===null)throw new P("async",k.asyncService);return r.go(this,e,t,s)}parent(){return this.around.parent()}goOn(){if(this.fuel-=50,this.fuel<0)throw new P("fuel",k.fuel)}at(e,t){return this.l=e,t}v(e,t,s){return this.l=e,this.traced&&this.values<=Me&&(this.values++,this.value(e,t,s)),this.detailed&&this.report(10,e,t,s),s}put(e){let{wire:t,sight:s}=this.around,{cells:r}=this;typeof e=="number"&&(e|0)===e&&!(e===0&&1/e<0)?(r[2]=14,r[3]=e):e==null||typeof e=="boolean"?t.give(e??null):t.giveJson(we(e,s))}value(e,t,s){let{cells:r}=this;this.put(s);let o=this.next();r[o]=-e,r[o+1]=t,r[o+2]=r[2],r[o+3]=r[3],r[9]=o+4}report(e,t,s,r){let{cells:o}=this;this.put(r),o[0]=9,o[7]=e,o[6]=t,o[1]=s,this.around.wire.call()}inSight(e){if(e===null)return null;try{return e()}catch{return null}}e(e,t){let s=++this.frames;return this.detailed&&this.report(1,e,s,this.inSight(t)),s}x(e){this.detailed&&this.report(2,0,e,null)}z(e,t){return this.detailed&&this.report(3,0,e,null),t}r(e,t){return this.detailed&&this.report(4,0,e,t),t}d(e,t,s){this.detailed&&this.report(5,e,t,this.inSight(s))}b(e,t){this.detailed&&this.report(6,e,t,null)}c(e,t,s){if(!this.detailed)return s;let r=s!==s||s===0n;return this.report(7,e,t,r?!1:s),this.cells[7]===1?!s:s}k(e,t,s){return this.detailed&&this.report(8,e,t,s),s}o(e,t,s){return this.detailed&&this.report(9,e,t,s),s}w(e,t){if(!this.asks)return;let{l:s,fuel:r,depth:o,deepest:i,thrownByScript:f,traced:a,detailed:c}=this,m=this.around.aside();this.asks=!1,this.traced=!1,this.detailed=!1,this.report(11,s,e,null);let w=12,d;try{d=t()}catch(u){w=13,d=Jn(u)}m(),Object.assign(this,{l:s,fuel:r,depth:o,deepest:i,thrownByScript:f,traced:a,detailed:c,asks:!0}),this.report(w,s,e,d)}m(e){let{cells:t}=this;if(t[40]===e)return!0;let s=64+(e>>5);return t[s]=t[s]|1<<(e&31),!1}t(e,t){return this.l=e,this.thrownByScript={value:t},t}};var Zn={form:"nothing",field:"a field such as fields.name, or a column such as fields.name.each.column",button:"a button such as buttons.name",rows:"a rows field such as fields.name"};function ye(n,e,t){return(...s)=>{n.demand("log() was called"),e.act("log",{values:s.map(r=>C(r,t))})}}function qe(n,e,t,s,r){let o=d=>s.wrong(d),i=(d,u)=>{if(d===void 0)return"supersede";let{overlap:l}=d??{};return l==="all"||l==="supersede"?l:o(k.wrongArguments(u,\'takes { overlap: "all" } or { overlap: "supersede" } as its last argument.\'))},f=(d,u,l,h)=>{let b=`on.${d}`;if(typeof l!="function")return o(k.wrongArguments(b,`takes a function to run, not ${I(l)}.`));let S=e.length,A=i(h,b);return t.act("tie",{event:d,to:u,tie:S,line:n.l,overlap:A}),e.push({run:l,probe:n,line:n.l,ruleRun:null}),()=>{t.act("untie",{tie:S})}},a=(d,u)=>(l,h,b)=>{let A=(Array.isArray(l)?l:[l]).map(v=>{let y=u==="field"?r.columnOf(v):null;if(y!==null)return[...y];let p=M.behind(v);return p!==null&&(u==="rows"?p.info.columns!==null&&p.row===null:p.info.sort===u&&p.row===null)?p.number:o(k.wrongArguments(`on.${d}`,`takes ${Zn[u]}, not ${I(v)}.`))});return f(d,A,h,b)},c={};for(let d of Object.keys(ge)){let u=ge[d];c[d]=u==="form"?(l,h)=>f(d,[],l,h):a(d,u)}let m=(d,u,l,h)=>{let[b,S]=typeof u=="function"?[`rule in line ${n.l}`,u]:[u,l];if(typeof b!="string"||typeof S!="function")return o(k.wrongArguments(d,"takes a title and a function."));h(e.length,b),e.push({run:S,probe:n,line:n.l,ruleRun:new V(-1,!0,n,n.l)})},w=Object.assign((d,u)=>m("keep",d,u,(l,h)=>t.act("keep",{tie:l,title:h,line:n.l})),{each:(d,u,l)=>{let h=M.behind(d);if(h===null||h.info.columns===null||h.row!==null)return o(k.wrongArguments("keep.each",`takes a rows field such as fields.name, not ${I(d)}.`));m("keep.each",u,l,(b,S)=>t.act("keepEach",{field:h.number,tie:b,title:S,line:n.l}))}});return Object.freeze(w.each),{on:Object.freeze(c),keep:Object.freeze(w)}}var qn=["globalThis","Function","Reflect","Intl","console","setTimeout","setInterval","queueMicrotask","process","window","self","document","fetch"];function ke(n){return`"use strict";return (function () {${n}\n}).call(undefined);`}function Qe({clock:n,promises:e}){let t={Date:n.Date,Math:n.Math,Temporal:n.Temporal,Promise:e.constructor};for(let s of qn)t[s]=void 0;return t}function en(n,e,t){let{wire:s,sight:r,tables:o,makeFunction:i}=n,f=new H(e,{wire:s,sight:r,parent:()=>null,promises:null,aside:()=>()=>{}}),a={__probe:f,tables:o.face,...Qe(n)},c=i(["parameters",...Object.keys(a)],ke(t));return{probe:f,run:m=>c(m,...Object.values(a))}}function nn(n){let{tables:e,asking:t,modules:s}=n;return{__shared:r=>{let o=s.get(r);if(o===void 0)throw new P("module",k.noModule(r));if(o instanceof P)throw o;return o},tables:e.face,services:t.services,after:t.after,round:Ze,checks:Xn,ServiceError:L,...Qe(n)}}function tn(n,e,{name:t,index:s,code:r,why:o}){let{wire:i,current:f,readsAs:a,sight:c,promises:m,makeFunction:w,modules:d}=n,u=(S,A)=>d.set(t,new P("module",k.moduleFailed(t,S,A)));if(r===null)return void u(o?.line??null,o?.says??k.syntax);let l=new H(e,{wire:i,sight:c,parent:()=>null,promises:m,aside:()=>f.aside()});f.probe=l,l.begin(1,0);let b={__probe:new fe(f,(s+1)*1048576),log:ye(f,i,a),...nn(n)};try{let S=w(Object.keys(b),ke(r))(...Object.values(b));d.set(t,Object.freeze(Object.assign(Object.create(null),S)))}catch(S){let{thrownByScript:A}=l,v=A!==null&&A.value===S;u(l.l%1048576,le(S,v,l.deepest).says)}}Object.freeze(L.prototype);Object.freeze(L);var Xn=Object.freeze({...ze,fits:Ke,format:Je});function rn(n,e,t,s){let{wire:r,current:o,faces:i,asking:f,form:a,readsAs:c,sight:m,promises:w,makeFunction:d}=n,u=new H(e,{wire:r,sight:m,parent:f.parent,promises:w,aside:()=>o.aside()});o.probe=u,u.begin(1,0);let l={__probe:u,...qe(u,s,r,o,i),log:ye(o,r,c),...i.globals,form:a,...nn(n)};d(Object.keys(l),ke(t))(...Object.values(l))}function on(n){class e{#e=null;#n=!1;#r=[];#o=!1;constructor(o){if(typeof o!="function")throw new TypeError("a promise takes a function");let i=a=>{this.#n||this.#i(a)},f=a=>{this.#n||this.#t({ok:!1,reason:a})};try{o(i,f)}catch(a){f(a)}}#i(o){if(this.#n=!0,o===this)return this.#t({ok:!1,reason:new TypeError("a promise cannot wait for itself")});if(e.is(o))return o.#s({owner:n(),react:i=>this.#t(i)});this.#t({ok:!0,value:o})}#t(o){if(this.#e!==null)return;this.#n=!0,this.#e=o;let i=this.#r;this.#r=[];for(let{owner:f,react:a}of i)f.ready(()=>a(o))}#s(o){this.#o=!0;let i=this.#e;i===null?this.#r.push(o):o.owner.ready(()=>o.react(i))}then(o,i){return new e((f,a)=>{let c=m=>{let w=m.ok?o:i;try{typeof w=="function"?f(w(m.ok?m.value:m.reason)):m.ok?f(m.value):a(m.reason)}catch(d){a(d)}};this.#s({owner:n(),react:c})})}catch(o){return this.then(void 0,o)}finally(o){if(typeof o!="function")return this.then();let i=f=>e.resolve(o()).then(f);return this.then(f=>i(()=>f),f=>i(()=>{throw f}))}static is(o){return typeof o=="object"&&o!==null&&#e in o}static settledOf(o){return o.#e}static settleNow(o,i){o.#t(i)}static isWaitedFor(o){return o.#o}static resolve(o){return e.is(o)?o:new e(i=>i(o))}static reject(o){return new e((i,f)=>f(o))}static all(o){return t(o,(i,f,a,c,m)=>[w=>(i[f]=w,m(()=>a(i))),c])}static allSettled(o){return t(o,(i,f,a,c,m)=>[w=>(i[f]={status:"fulfilled",value:w},m(()=>a(i))),w=>(i[f]={status:"rejected",reason:w},m(()=>a(i)))])}static any(o){return t(o,(i,f,a,c,m)=>[a,w=>(i[f]=w,m(()=>c(i[0])))])}static race(o){return new e((i,f)=>{for(let a of o)e.resolve(a).then(i,f)})}}function t(r,o){return new e((i,f)=>{let a=[...r],c=a.map(()=>{}),m=a.length;m===0&&i(c);let w=d=>{--m===0&&d()};a.forEach((d,u)=>e.resolve(d).then(...o(c,u,i,f,w)))})}function s(r,o,i,f){return new e((a,c)=>{let m=i.apply(o,f),{l:w}=r,d=(u,l)=>{let h;r.l=w;try{r.goOn(),h=m[u](l),w=r.l}catch(b){return c(b)}if(h.done===!0)return a(h.value);e.resolve(h.value).then(b=>d("next",b),b=>d("throw",b))};d("next",void 0)})}return Object.freeze(e.prototype),{constructor:Object.freeze(e),pending(){let r=new e(()=>{});return{promise:r,settle:o=>e.settleNow(r,o),waitedFor:()=>e.isWaitedFor(r)}},go:s,isPromise:r=>e.is(r),settled:r=>e.settledOf(r)}}function Se(n){let e=new WeakMap,t=new Map,s=Object.create(null);for(let{name:r,key:o,rows:i}of n){B(i);let f=new Map;for(let a of i){let c=String(a[o]);f.set(c,a),e.set(a,[r,c])}t.set(r,f),s[r]=Object.freeze({rows:i,find:a=>a==null?null:f.get(String(a))??null})}return{face:Object.freeze(s),find:(r,o)=>t.get(r)?.get(o)??null,rowOf:r=>e.get(r)??null}}var{isArray:et}=Array,{keys:nt,prototype:tt}=Object,{parse:Te,stringify:xe}=JSON,{isFinite:rt}=Number,ot=tt.toString,st=8;function sn(n,e,t,s){let r=new Int32Array(n),o=new Float64Array(n),i=e,f=[],a=new Map,c=[],m=[],w=[],d="",u=p=>{a.set(p,f.length),f.push(p)},l=p=>{let T=a.get(p);if(T!==void 0)return T;d=p,r[0]=3,i();let E=f.length;return u(p),E},h=(p,T,E)=>{if(p.length<=256){let R=l(p);r[2]=T,r[3]=R;return}d=p,r[0]=4,i(),d="",r[2]=E},b=p=>typeof p=="function"?0:ot.call(p).startsWith("[object Temporal.")?1:2,S=(p,T)=>{switch(typeof p){case"string":case"boolean":return p;case"number":return rt(p)?p:{"":String(p)};case"undefined":return{"":"undefined"};case"object":{if(p===null)return null;let E=t.tableRow(p);if(E!==null)return{"":E};if(T>st||t.isFace(p)||b(p)===1)return{"":b(p)};if(et(p)){let O=[];for(let N=0;N<p.length;N++)O[N]=S(p[N],T+1);return O}let R={__proto__:null};for(let O of nt(p))R[O]=S(p[O],T+1);return R}default:return{"":b(p)}}},A=p=>{switch(typeof p){case"string":return h(p,5,7);case"number":r[2]=4,o[2]=p;return;case"boolean":r[2]=p?3:2;return;case"undefined":r[2]=0;return;case"object":if(p===null){r[2]=1;return}if(t.isFace(p)||b(p)===1)break;return h(xe(S(p,0)),6,8)}r[3]=b(p),r[2]=11},v=(p,T)=>s.fault(new P(be[p],T)),y=(p,T,E)=>{let R=r[T];switch(r[p]){case 1:return null;case 2:return!1;case 3:return!0;case 4:return o[E];case 5:return f[R];case 6:return c[R]??=B(Te(f[R]));case 7:return w[R];case 8:return B(Te(w[R]));case 9:return m[R];case 10:{let O=B(Te(w[R]));return m.push(O),O}case 12:return v(r[7],f[R]);case 13:return v(r[7],w[R]);default:return}};return{cells:r,floats:o,call:i,texts:f,take:y,give:A,giveJson:p=>h(xe(p),6,8),giveFault({code:p,says:T}){h(T,12,13),r[7]=be.indexOf(p)},act(p,T){return h(xe([p,S(T,0)]),6,8),r[6]=s.probe?.l??0,r[0]=5,i(),y(2,3,2)},putText:u,putLoose(p,T){w[p]=T},given:()=>d,loose:p=>w[p]??"",cut(p,T){for(let E=p;E<f.length;E++)a.delete(f[E]);f.length>p&&(f.length=p),c.length>p&&(c.length=p),m.length>T&&(m.length=T),w.length=0,d=""},counts:()=>[f.length,m.length]}}var X=0;function an(n){let e=new ue,t=[],s=[],r=new Map,o=Se([]),i=null,f=null,a=sn(n.buffer,n.host,{isFace:g=>M.behind(g)!==null,tableRow:g=>o.rowOf(g)},e),{cells:c,take:m}=a,w=on(()=>e.owner()),d=g=>ve(g)??(g===f?.form?"form":null);function u(){let{parts:g,tables:x,services:_}=JSON.parse(a.loose(X));o=Se(x),i=Ue(g,a,e,o);let j=()=>(c[1]=29,c[0]=1,a.call(),m(2,3,2));f={wire:a,current:e,promises:w,faces:i,asking:Ie(_,a,e,w),tables:o,clock:Fe(a,n.temporal(),j),form:Ve(a,e),readsAs:d,sight:{readsAs:d,isProxy:n.isProxy,temporal:n.temporal},makeFunction:n.makeFunction,modules:new Map}}function l(){let g=t.length;e.topLevel=!0;try{rn(f,c[7],a.loose(X),t),c[0]=0}catch(x){t.length=g,pe(e.probe,x)}finally{e.topLevel=!1,e.probe=null}}function h(){e.topLevel=!0;try{tn(f,c[7],JSON.parse(a.loose(X)))}finally{e.topLevel=!1,e.probe=null}c[0]=0}function b(){s.push(en(f,c[7],a.loose(X)))}function S(){let{run:g,probe:x}=s[c[7]];e.probe=x,x.begin(1,0);try{let _=C(g(JSON.parse(a.loose(X))),d);a.give(_),c[0]=0}catch{c[0]=2}c[6]=x.l,e.probe=null}function A(){let g=t[c[11]];g.ruleRun===null?y(g):v(g,g.ruleRun),e.run=null,e.probe=null}function v(g,x){let{probe:_}=g;e.run=x,e.probe=_,_.begin(g.line,c[8]);try{let j=g.run(c[13]===1?i.row(c[15],c[16],c[17]):void 0);if(typeof j=="object"&&j!==null&&(w.isPromise(j)||"then"in j)&&e.fault(new P("async",k.asyncRule)),x.fault!==null)throw x.fault;me(_),c[0]=0}catch(j){pe(_,x.fault??j),x.fault=null}}function y(g){let{probe:x}=g,_=new V(c[12],!1,x,g.line);e.run=_,e.probe=x,x.begin(g.line,c[8]);try{let j=g.run(O());w.isPromise(j)&&(_.main=j),ee(_)}catch(j){Oe(_,j)}}function p(){let g=r.get(c[12]),x=g?.calls?.get(c[30]);if(g===void 0||x===void 0){c[0]=0;return}let _=g.probe;g.calls.delete(c[30]),g.fault=null,e.run=g,e.probe=_;let j=c[7]===1;_.begin(g.line,c[8]);try{let W=m(20,21,11);x(j?{ok:!1,reason:String(W)}:{ok:!0,value:W}),ee(g)}catch(W){Oe(g,W)}finally{e.run=null,e.probe=null}}function T(){let g=r.get(c[12]);g!==void 0&&E(g)}function E(g){g.over=!0,g.jobs=null,r.delete(g.number)}function R(){let{run:g,probe:x}=e;c[6]=x?.l??0,g!==null&&E(g),e.run=null,e.probe=null,e.topLevel=!1}function O(){let g=c[15]<0?null:i.row(c[15],c[16],c[17]),x={part:c[14]<0?null:N(c[14],g),value:m(20,21,11),previous:m(24,25,13),by:_e[c[18]]};c[28]!==0&&Object.assign(x,m(28,29,0)),g!==null&&(x.row=g);let _=c[19];return _>0&&(x.stop=(j,W)=>z(_,j,W)),Object.freeze(x)}function N(g,x){if(x===null||g<i.fixed)return i.part(g);let _=M.behind(x);return x.fields[_.info.columns[g-_.number-1].name]}function z(g,x,_){if(e.demand("event.stop() was called"),typeof x!="string"||x==="")return e.wrong(k.wrongAspect("event","stop()","a text that says why",x));if(_==null)return void a.act("stop",{event:g,says:x,part:null});let j=M.behind(_);if(j===null||j.info.sort==="button"||j.info.sort==="track")return e.wrong(k.wrongArguments("event.stop",`takes a field, section, page or row as its second argument, not ${I(_)}.`));a.act("stop",{event:g,says:x,part:j.number})}function ee(g){for(let j=g.jobs?.shift();j!==void 0;j=g.jobs?.shift())j();if(g.fault!==null)throw g.fault;let x=g.main===null?null:w.settled(g.main);if(x?.ok===!1)throw x.reason;let _=g.main!==null&&x===null||g.calls!==null&&g.calls.size>0;_?r.set(g.number,g):(g.over=!0,r.delete(g.number)),me(g.probe),c[0]=_?1:0}function Oe(g,x){E(g),pe(g.probe,g.fault??x)}function pe(g,x){let{thrownByScript:_}=g;a.giveFault(le(x,_!==null&&_.value===x,g.deepest)),me(g),c[0]=2}function me(g){c[6]=g.l,c[10]=g.used}return{wire:a,surround:u,load:l,loadModule:h,loadService:b,answer:S,run:A,resume:p,drop:T,lost:R}}var it=["year","month","day","hour","minute","second"];function un(n){class e{#e;constructor(s,r){this.#e=r?.timeZone??"UTC",this.#e!=="UTC"&&this.formatToParts(0)}formatToParts(s){let r=n.act("zone",{zone:this.#e,at:s});if(r.length===0)throw new RangeError;let o=r[0];return[{type:"era",value:o>0?"AD":"BC"},...it.map((i,f)=>({type:i,value:String(f===0&&o<=0?1-o:r[f])}))]}resolvedOptions(){return{timeZone:this.#e,calendar:"iso8601",locale:"en"}}}return{DateTimeFormat:e}}var at=RegExp,{exec:ut}=RegExp.prototype,{apply:ct}=Reflect;function cn(n,e){return ct(ut,new at(`^(?:${n})$`,"u"),[e])!==null}function ln(){let n=new WeakSet,e=Proxy;function t(s,r){if(new.target===void 0)throw new TypeError("Proxy has to be called with new");let o=new e(s,r);return n.add(o),o}return t.revocable=(s,r)=>{let o=e.revocable(s,r);return n.add(o.proxy),o},{KnownProxy:t,isProxy:s=>n.has(s)}}var D=globalThis,lt=Function,Ee=null,{isProxy:ft,KnownProxy:dt}=ln();D.Proxy=dt;var $=an({buffer:D.__buffer,host:D.__host,makeFunction:(n,e)=>lt(...n,e),temporal:()=>Ee,isProxy:ft}),{wire:Q}=$;D.Intl=un(Q);delete D.__buffer;delete D.__host;D.__entries={surround:()=>$.surround(),load:()=>$.load(),loadModule:()=>$.loadModule(),loadService:()=>$.loadService(),answer:()=>$.answer(),run:()=>$.run(),resume:()=>$.resume(),drop:()=>$.drop(),lost:()=>$.lost(),putText:n=>Q.putText(n),putLoose:(n,e)=>Q.putLoose(n,e),given:()=>Q.given(),fits:(n,e)=>cn(n,e)?"yes":"no",cut:(n,e)=>Q.cut(n,e)};D.__close=()=>{Ee=D.Temporal??null;for(let n of["__close","__entries","Temporal","Intl"])delete D[n];Ae(Ee)};})();\n';
var temporal = '(()=>{var No=globalThis.Temporal;var Zi=(n,e)=>`Non-positive ${n}: ${e}`,Pi=(n,e)=>`Non-finite ${n}: ${e}`,Ei=n=>`Cannot convert bigint to ${n}`,Si="Invalid object",He=(n,e,t,o)=>ne(n,e)+`; must be between ${t}-${o}`,ne=(n,e)=>`Invalid ${n}: ${e}`;var Oo=1e3,Fo=1e6,bo=1e9,Co=6e10,Zo=36e11;function ln(n){return n===void 0?Object.create(null):te(n)}function Yt(n,e="number"){if(typeof n=="bigint")throw new TypeError(Ei(e));if(n=Number(n),!Number.isFinite(n))throw new RangeError(Pi(e,n));return n}function w(n,e){return Math.trunc(Yt(n,e))||0}function Ve(n,e){return wi(w(n,e),e)}function wi(n,e="number"){if(n<=0)throw new RangeError(Zi(e,n));return n}function Po(n,e,t){return Math.min(Math.max(n,e),t)}function ee(n){return n!==null&&(typeof n=="object"||typeof n=="function")}function te(n){if(!ee(n))throw new TypeError(Si);return n}var ve=ne;var tt=n=>`Missing ${n}`,ji="Invalid bag",Li=(n,e,t)=>ne(n,e)+"; must be "+Object.keys(t).join(),zi="Cannot use valueOf",$i="Invalid calling context",Lo=n=>"Missing year"+(n?"/era/eraYear":""),re="Invalid leap month",qi=n=>ne("Calendar",n),Gi=(n,e)=>`Unknown calendar ${n}; might need ${e}`,zo=n=>ne("TimeZone",n),$n="Out-of-bounds date";var $o=n=>`Cannot parse: ${n}`;var qo=Po,_=ee;function y(n){throw new RangeError(n)}function M(n){throw new TypeError(n)}function Bo(n,e,t,o,r){return pn(e,((i,a)=>{let c=i[a];return c===void 0&&M(tt(a)),c})(n,e),t,o,r)}function pn(n,e,t,o,r,i){let a=qo(e,t,o);return r&&e!==a&&y(((c,s,u,d,l)=>l?He(c,l[s],l[u],l[d]):He(c,s,u,d))(n,e,t,o,i)),a}function Me(n,e=Map,t=1e4){let o=new e;return(r,...i)=>{if(o.has(r))return o.get(r);o.size>=t&&o.clear();let a=n(r,...i);return o.set(r,a),a}}var _i=n=>qt({name:n},1),qt=(n,e)=>Gn(t=>({value:t,configurable:1,writable:!e}),n),ot=n=>({[Symbol.toStringTag]:{value:n,configurable:1}});function Gn(n,e){let t={};for(let o in e)t[o]=n(e[o],o);return t}function rt(n,e){let t={};for(let o of n)t[o]=e;return t}function Go(n){let e={};for(let t of n)e[t]=o=>o[t];return e}function Mn(n,e,t=Object.create(null)){for(let o of n)t[o]=e[o];return t}function Hi(n,e,t){for(let o of n)if(e[o]!==t[o])return 0;return 1}function yu(n,e,t){let o={...t};for(let r=0;r<e;r++)o[n[r]]=0;return o}function z(n,...e){return(...t)=>n(...e,...t)}function _o(){}function Bi(n){return n[0].toUpperCase()+n.substring(1)}function Y(...n){return[].concat(...n).sort()}function Ho(n){return new RegExp(`^${n}$`)}function Je(n){return parseInt(n.padEnd(9,"0"))}function tn(n){return n===void 0?0:parseInt(n)}function At(n,e){return String(e).padStart(n,"0")}var hn=z(At,2);function Pn(n,e){return Math.sign(n-e)}function J(n,e){return n<e?-1:n>e?1:0}function Vi(n,e){let t=n/e;return n%e<0n?t-1n:t}function Vo(n,e){let t=Vi(n,e);return[t,n-t*e]}function En(n,e){return[Math.floor(n/e),Gt(n,e)]}function Gt(n,e){return(n%e+e)%e}function be(n,e){return Math.trunc(n/e)||0}function Jo(n,e){return n%e||0}function Ji(n,e=1){return e*(.5+n/5)}function kt(n){return Math.abs(n%1)===.5}var Xo="iso8601",Xi="gregory",Tu={bce:-1,ce:0};function Ki(n){let e=n.normalize("NFD").toLowerCase().replace(/[^a-z0-9]/g,"");return e==="bc"||e==="b"?"bce":e==="ad"||e==="a"?"ce":e}var X=void 0,Qi=0;function yn(n){return n===X?"iso8601":n===0?"gregory":n.id}var gu=/^M(\\d{2})(L?)$/;function na(n){let e=gu.exec(n);return e||y((t=>`Invalid monthCode: ${t}`)(n)),[parseInt(e[1]),!!e[2]]}function ea(n,e){return"M"+hn(n)+(e?"L":"")}function Ro(n,e,t){return n+(e||t&&n>=t?1:0)}var Yo={nanosecond:0,microsecond:1,millisecond:2,second:3,minute:4,hour:5,day:6,week:7,month:8,year:9},Ko=Object.keys(Yo);var it=Oo,at=Fo,se=bo,ct=Co,st=Zo,kn=864e11,Tn=[1,it,at,se,ct,st,kn],Du=BigInt(it),Ce=BigInt(at),ie=BigInt(se),Iu=BigInt(ct),vu=BigInt(st),C=BigInt(kn);function ta(n,e){let t=Number(n/C),o=Number(n%C);return t*(kn/e)+(Math.trunc(o/e)+o%e/e)}var $=Ko.slice(0,6),ut=Go($),_t=["year"],ue=["day"],Qo=["day","month","year"],Ht=["offset"],nr=["timeZone"],Ze=["era","eraYear"],Mu=["era","eraYear","year"],oa=["month","monthCode"],Nu=["day","month","monthCode"],ko=Y($),Ou=Y(Ze,_t),dt=Y(oa,_t),ra=Y(Ze,dt),ft=Y(["monthCode"],_t),ia=Y(Ze,ft),aa=Y(ue,["monthCode"]),de=Y(ue,dt),fe=Y(ue,Ze,dt),ca=Y(de,$),sa=Y(fe,$),Fu=Y(de,$,Ht),bu=Y(fe,$,Ht),ua=Y(de,$,Ht,nr),da=Y(fe,$,Ht,nr),Cu=Y(ue,ft),Zu=Y(ue,Ze,ft),gn=rt($,0);function er(n){return Vt(n,1),n}var Pu={hour:23,minute:59,second:59};function Vt(n,e){let t={};for(let o of $)t[o]=pn(o,n[o],0,Pu[o]||999,e);return t}function K(n){return or(n)*se+fa(n)}function tr(n){return 1e3*or(n)+n.millisecond}function or(n){return 3600*n.hour+60*n.minute+n.second}function fa(n){return n.millisecond*at+n.microsecond*it+n.nanosecond}function rr(n){let[e,t]=En(n,kn);return[ma(t),e]}function ma(n){let[e,t]=En(n,at),[o,r]=En(t,it);return Eu(e,o,r)}function Eu(n,e=0,t=0){let[o,r]=En(n,36e5),[i,a]=En(r,6e4),[c,s]=En(a,1e3);return{hour:o,minute:i,second:c,millisecond:s,microsecond:e,nanosecond:t}}function Ri(n){let[e,t]=Vo(n,ie);return[Number(e),Number(t)]}function mt(n){return Number(Vi(n,Ce))}function L(n){return wn(n)+BigInt(K(n))}function la(n){return lt(n)+tr(n)}function wn(n){return BigInt(Nn(n))*C}function lt(n){return 864e5*Nn(n)}function Nn(n){return Xe(n.year,n.month,n.day)}function Xe(n,e=1,t=1){let o=e-1;return n+=Math.floor(o/12),e=Gt(o,12),Date.UTC(n%400-400,e,0)/864e5+146097*(be(n,400)+1)+t}function ht(n){let[e,t]=Vo(n,C);return{...ha(Number(e)),...ma(Number(t))}}function ha(n){let e=new Date(864e5*Gt(n,146097));return{year:e.getUTCFullYear()+400*Math.floor(n/146097),month:e.getUTCMonth()+1,day:e.getUTCDate()}}var pa=1972;function Su(n){return[n,0]}function xo(n,e){if(!e)return{year:1972,month:n}}function wu(n,e,t){return{year:n,month:e,day:t}}function ya(n,e){switch(e){case 2:return Jt(n)?29:28;case 4:case 6:case 9:case 11:return 30}return 31}function Bu(n){return Jt(n)?366:365}function Jt(n){return n%4==0&&(n%100!=0||n%400==0)}function Ru(n,e,t){return n+=be(t,12),(e+=Jo(t,12))<1?(n--,e+=12):e>12&&(n++,e-=12),{year:n,month:e}}function Yu(n,e,t,o){return 12*(t-n)+o-e}function Xt(n){return Gt(Xe(n.year,n.month,n.day)+4,7)||7}function Ta(n){return Xe(n.year,n.month,n.day)-Xe(n.year)+1}function ga(n){let e=n.year,t=Math.floor((Ta(n)-Xt(n)+10)/7),o=Eo(e);return t<1?t=o=Eo(--e):t>o&&(t=1,o=Eo(++e)),{weekOfYear:t,yearOfWeek:e,De:o}}function Eo(n){let e=Xt({year:n,month:1,day:1});return e===4||e===3&&Jt(n)?53:52}function ku({year:n}){return n<1?{era:"bce",eraYear:1-n}:{era:"ce",eraYear:n}}function Da(n){return Pe(n),er(n)}function Pe(n){return Ia(n,1),n}function Ia(n,e){let{year:t}=n,o=Bo(n,"month",1,12,e);return{year:t,month:o,day:Bo(n,"day",1,ya(t,o),e)}}function F(n,e){return n?n.de(e):e}function ae(n,e,t){return n?n.L(e,t):Su(t)}function pt(n,e){return n===0?ku(e):n&&n.h?.(e)||{}}function me(n,e,t,o){return n?n.fe(e,t,o):wu(e,t,o)}function Ke(n,e){return n?n.j(e):12}function Qe(n,e,t){return n?n.o(e,t):ya(e,t)}function Kt(n,e){let{year:t,month:o}=F(n,e),[r,i]=ae(n,t,o);return ea(r,i)}function ir(n,e){let{year:t}=F(n,e);return n?n.q(t):Jt(t)}function ar(n,e){let{year:t}=F(n,e);return Ke(n,t)}function cr(n,e){let{year:t,month:o}=F(n,e);return Qe(n,t,o)}function sr(n,e){let{year:t}=F(n,e);return n?n.i(t):Bu(t)}function va(n,e){if(!n)return Ta(e);let{year:t}=F(n,e),o=me(n,t,1,1);return Nn(e)-Nn(o)+1}function Ma(n,e){return n===X?ga(e).weekOfYear:void 0}function Na(n,e){return n===X?ga(e).yearOfWeek:void 0}var b=Ko.map(n=>n+"s"),ur=Go(b),Oa=Y(b),xu=b.slice(0,6),Fa=b.slice(6),Uu=Fa.slice(1),B=rt(b,0),dr=rt(xu,0),fr=z(yu,b);function ba(n,e){return e==null&&y(tt(n)),e}var q=z(Au,"string");function Au(n,e,t=n){return typeof e!==n&&M(ve(t,e)),e}function mr(n,e="number"){return Number.isInteger(n)||y(((t,o)=>`Non-integer ${t}: ${o}`)(e,n)),n||0}function Qt(n){return typeof n=="symbol"&&M("Cannot convert Symbol to string"),String(n)}function lr(n){if(!ee(n))return n;let e=n[Symbol.toPrimitive];if(e!=null){typeof e!="function"&&M();let t=Reflect.apply(e,n,["string"]);return ee(t)&&M(),t}return Date.prototype[Symbol.toPrimitive].call(n,"string")}function no(n){return typeof n=="boolean"?BigInt(n?1:0):typeof n=="string"?BigInt(n):(typeof n!="bigint"&&M(`Invalid bigint: ${n}`),n)}function yt(n,e){return mr(Yt(n,e),e)}var Sn="smallestUnit",Wu={constrain:0,reject:1},ju={compatible:0,reject:1,earlier:2,later:3},Lu={reject:0,use:1,prefer:2,ignore:3},zu={auto:0,never:1,critical:2,always:3},$u={auto:0,never:1,critical:2},qu={auto:0,never:1},Gu={floor:0,halfFloor:1,ceil:2,halfCeil:3,trunc:4,halfTrunc:5,expand:6,halfExpand:7,halfEven:8},_u=[Math.floor,n=>kt(n)?Math.floor(n):Math.round(n),Math.ceil,n=>kt(n)?Math.ceil(n):Math.round(n),Math.trunc,n=>kt(n)?Math.trunc(n)||0:Math.round(n),n=>n<0?Math.floor(n):Math.ceil(n),n=>Math.sign(n)*Math.round(Math.abs(n))||0,n=>kt(n)?(n=Math.trunc(n)||0)+n%2:Math.round(n)],Hu={previous:-1,next:1};function hr(n){let e=n.roundingIncrement;if(e===void 0)return 1;let t=w(e,"roundingIncrement");return(t<1||t>10**9)&&y(ve("roundingIncrement",t)),t}function pr(n){let e=n.fractionalSecondDigits;if(e!==void 0){if(typeof e!="number"){if(Qt(e)==="auto")return;y(ve("fractionalSecondDigits",e))}e=pn("fractionalSecondDigits",Math.floor(e),0,9,1)}return e}function yr(n,e,t=0,o){let r=e[n];if(r===void 0)return o?t:void 0;if(r=Qt(r),r==="auto")return o?t:null;let i=Yo[r];return i===void 0&&(i=b.indexOf(r)),i<0&&y(Li(n,r,Yo)),i}function _n(n,e,t,o=0){let r=t[n];if(r===void 0)return o;let i=Qt(r),a=e[i];return a===void 0&&y(Li(n,i,e)),a}var Ee=z(yr,Sn),Ca=z(yr,"largestUnit"),Vu=z(yr,"unit"),Za=z(_n,"overflow",Wu),Pa=z(_n,"disambiguation",ju),Ju=z(_n,"offset",Lu),Tr=z(_n,"calendarName",zu),Xu=z(_n,"timeZoneName",$u),Ku=z(_n,"offset",qu),Se=z(_n,"roundingMode",Gu),Qu=z(_n,"direction",Hu);function eo(n,e){return typeof n=="string"?((t,o)=>{let r=Object.create(null);return r[t]=o,r})(e,n):te(n)}function gr(n,e,t,o){let r=o?kn:Tn[e+1];if(r){let i=n*Tn[e];(r%i||!o&&i===r)&&y(ve("roundingIncrement",n))}else!t&&n>1&&y(ve("roundingIncrement",n));return n}function Ne(n,e,t,o){return e!=null&&pn(n,e,t,o,1,Ko),e}function Ea(n,e){e>n&&y("smallestUnit > largestUnit")}function le(n,e,t,o=9,r=0,i=4){e=ln(e);let a=Ca(e,r),c=hr(e),s=Se(e,i),u=Ee(e,r,1);return a=Ne("largestUnit",a,r,o),u=Ne(Sn,u,r,o),a==null?a=Math.max(t,u):Ea(a,u),c=gr(c,u,1),n&&(s=(d=>d<4?(d+2)%4:d)(s)),[a,u,c,s]}function Tt(n,e=6,t){let o=hr(n=eo(n,Sn)),r=Se(n,7),i=Ee(n);return i=ba(Sn,i),i=Ne(Sn,i,0,e),o=gr(o,i,void 0,t),[i,o,r]}function P(n,e){return Mn(Qo,n,Mn($,e))}var Dr=BigInt(1e8)*C,Ir=BigInt(-1e8)*C,Sa=Ir-C;function nt(n){let e=12*n.year+n.month;return(e<-3261848||e>3309129)&&y($n),n}function Q(n,e=1){let t=wn(n);return(t<(e?Sa:Ir)||t>Dr)&&y($n),n}function he(n){return nd(L(n)),n}function nd(n){return(n<=Sa||n>=Dr+C)&&y($n),n}function In(n){return(n<Ir||n>Dr)&&y($n),n}function vr(n,e){return In(wn(n)+BigInt(K(n)-e))}function Oe(n,e,t){return Mr(n/e,t)*e||0}function Mr(n,e){return _u[e](n)}function ed(n,e,t,o){let r=wa(n,e,o,t);return Ba(r,Number(t-r.N)/Number(r.te-r.N))}function td(n,e,t,o){return Oe(Ba(n,Ra(e,n.N,n.te)),t,o)}function wa(n,e,t,o){let r=Yi(n,e,t);return((i,a,c,s)=>s>0?a<=i&&i<=c:c<=i&&i<=a)(o,r.N,r.te,Math.sign(e))||(r=Yi(n+e,e,t)),r}function Yi(n,e,t){let o=n+e;return{ve:n,pe:o,N:t(n),te:t(o)}}function Ba(n,e){return n.ve+e*(n.pe-n.ve)}function Ra(n,e,t){let o=t-e,r=n-e;if(!r)return 0;let i=r<0n?-r:r,a=o<0n?-o:o,c=J(r,0n)===J(o,0n)?1:-1;return J(i,a)<=0?i===a?c:Ji(J(2n*i,a),c):Number(r)/Number(o)}function on(n){return{epochNanoseconds:n}}function rn(n,e,t){return{calendar:t,timeZone:e,epochNanoseconds:n}}function On(n,e){return Mn($,n,Z(n,e))}function Z(n,e){return Mn(Qo,n,{calendar:e})}function pe(n){return Mn($,n)}function Dn(n){return Mn(b,n,{sign:Be(n)})}function Ya(n,e,t,o){return rn(e===6?rd(n,o):id(n,e,t,o),n.timeZone,n.calendar)}function ka(n){let[e,t]=Wa(n);return ta(t-e,st)}function xa(n){let{timeZone:e,calendar:t}=n;return rn(Fe(e,P(R(n),gn)),e,t)}function to(n,e,t,o,r,i,a,c){if(o===0&&r===1)return n;let s=Be(n)||1,u=Lt(o,c)?c&&o<6&&t>=6?cd:sd:ad,[d,l,f]=u(s,n,e,t,o,r,i,a);return f&&o!==7&&(d=((m,T,p,h,g,D)=>{for(let O=h+1;O<=p;O++){if(O===7&&p!==7)continue;let N=fr(O,m);N[b[O]]+=g;let A=J(T,Pr(D,N));if(A&&A!==g)break;m=N}return m})(d,l,t,Math.max(6,o),s,a)),d}function od(n,e,t){let o=Math.max(Math.min(Rn(n),6),3);return qn(oo(Bn(n),BigInt(e),t),o)}function rd(n,e){let[t,o]=Wa(n);return ud(n.epochNanoseconds,t,o,e)}function id(n,e,t,o){if(e===0&&t===1)return n.epochNanoseconds;let r=R(n);return fd(n.timeZone,Nr(r,e,t,o),r.offsetNanoseconds)}function Nr(n,e,t,o){return Aa(n,io(e,t),o,Tn[e+1])}function Ua(n,e,t,o){return Or(n,io(e,t),o,Tn[e+1])}function Aa(n,e,t,o){let[r,i]=Or(n,e,t,o),a=P(we(n,i),r);return he(a),a}function Or(n,e,t,o=kn){let r=K(n),i=r%o;return rr(r-i+Oe(i,e,t))}function ad(n,e,t,o,r,i,a,c){let s=b[r],u=fr(r,e);r===7&&(e={...e,weeks:e.weeks+Math.trunc(e.days/7)});let d=be(e[s],i)*i,l=wa(d,i*n,m=>(u[s]=m,Pr(c,u)),t),f=td(l,t,i,a);return u[s]=f,[u,f===l.pe?l.te:l.N,f!==d]}function cd(n,e,t,o,r,i,a,c){let s=Number(Re(e)),u=io(r,i),d=Oe(s,u,a),l={...e,...dr},f=c.X(l),m=c.X({...l,days:l.days+n}),T=Number(m-f);Math.sign(T)!==n&&y("Out-of-bounds TimeZone gap");let p=d-T,h=0,g;p&&Math.sign(p)!==n?g=f+BigInt(d):(h+=n,d=Oe(p,u,a),g=m+BigInt(d));let D=so(d);return[{...e,...D,days:e.days+h},g,!!h]}function sd(n,e,t,o,r,i,a){let c=Bn(e),s=oo(c,gt(r,i),a),u=s-c,d=Math.sign(Number(s/C)-Number(c/C))===n,l=qn(s,Math.min(o,6));return[{...e,...l},t+u,d]}function Wa(n){let{timeZone:e}=n,t=P(R(n),gn),o=P(we(t,1),gn);return[Fe(e,t),Fe(e,o)]}function ud(n,e,t,o){return Mr(Ra(n<t?n:t-1n,e,t),o)?t:e}function Wt(n){return Oe(n,ct,7)}function oo(n,e,t){return ja(n,e,t,n/e%2n)}function ro(n,e,t){let[o,r]=Vo(n,C),i=o*C;return i+ja(r,e,t,i/e+r/e&1n)}function ja(n,e,t,o){let r=n/e,i=n%e,a=0;i&&(a=Ji(J(2n*(i<0n?-i:i),e),Math.sign(Number(i))));let c=Mr(Number(o)+a,t);return(r-o+BigInt(c))*e}function io(n,e){return Tn[n]*e}function gt(n,e){return BigInt(Tn[n])*BigInt(e)}var R=Me(dd,WeakMap);function dd(n){let{epochNanoseconds:e,timeZone:t}=n,o=t.B(e);return{...ht(e+BigInt(o)),offsetNanoseconds:o}}function fd(n,e,t){return Dt(n,e,t,2,0)}function Dt(n,e,t,o=0,r=0,i,a){if(a||t!==void 0&&o===1)return vr(e,t||0);let c=n.O(e);if(t!==void 0&&o!==3){Q(e,0);let s=((u,d,l,f)=>{let m=L(d);f&&(l=Wt(l));for(let T of u){let p=Number(m-T);if(f&&(p=Wt(p)),p===l)return T}})(c,e,t,i);if(s!==void 0)return s;o===0&&y("Invalid TimeZone offset")}return ye(n,e,r,c)}function ye(n,e,t=0,o=n.O(e)){if(o.length===1)return o[0];if(t===1&&y("Ambiguous offset"),o.length)return o[t===3?1:0];let r=L(e),i=((c,s)=>{let u=c.B(s-C);return(d=>(d>kn&&y("Out-of-bounds TimeZone gap"),d))(c.B(s+C)-u)})(n,r),a=ht(r+BigInt(i*(t===2?-1:1)));return(o=n.O(a))[t===2?0:o.length-1]}function Fe(n,e){let t=n.O(e);if(t.length)return t[0];let o=L(e)-C;return n.C(o,1)}function Fr(n,e,t,o=0){Be(t)&&pn("unit",Rn(t),8,9,1,b);let r=Q(et(n,e));return et(n,xn(n,r,t,o))}function It(n,e,t=0){let{calendar:o,epochNanoseconds:r,timeZone:i}=n,a=Re(e),c=r;if(rc(e)){let s=R(n);c=ye(i,P(xn(o,s,{...e,...dr},t),s))+a}else c+=a;return{...n,epochNanoseconds:In(c)}}function vt(n,e,t,o=0){let[r,i]=ao(e,t);return he(P(xn(n,e,{...t,...dr,days:t.days+i},o),r))}function ao(n,e){return md(n,Re(e))}function br(n,e){return ld(n,(pn("unit",Rn(t=e),0,5,1,b),Re(t)));var t}function xn(n,e,t,o=0){let{years:r,months:i,weeks:a,days:c}=t,s;if(c+=Number(Re(t)/C),r||i)s=jt(n,e,r,i,o);else{if(!a&&!c)return e;s=e}return(a||c)&&(s=we(s,7*a+c)),Q(s)}function et(n,e){return we(e,1-F(n,e).day)}function jt(n,e,t,o,r){let i=F(n,e),{year:a,month:c,day:s}=i;if(t){let[u,d]=ae(n,a,c);a+=t,c=Uo(n,u,d,n?n.p(a):void 0,r),c=pn("month",c,1,Ke(n,a),r)}return o&&({year:a,month:c}=La(n,a,c,o)),s=pn("day",s,1,Qe(n,a,c),r),me(n,a,c,s)}function La(n,e,t,o){return n?n.ae(e,t,o):Ru(e,t,o)}function Uo(n,e,t,o,r){if(t){let i=n?n.l:void 0;if(o!==void 0&&(i<0||o===e+1))return o;if(r===1&&y(re),i<0)return-i}return Ro(e,0,o)}function md(n,e){let t=Number(e/C),o=Number(e%C),[r,i]=rr(K(n)+o);return[r,t+i]}function ld(n,e){return In(n+e)}function we(n,e){return e?ha(Nn(n)+e):n}function Mt(n,e){return yn(n)!==yn(e)&&y("Mismatching Calendars"),n}function za(n,e){return n.m!==e.m&&y("Mismatching TimeZones"),n}function $a(n){return n.timeZone.id}function qa(n,e,t,o,r,i,a){return o<6?Nt(e.epochNanoseconds,t.epochNanoseconds,o,r,i,a):((c,s,u,d,l,f,m)=>{let T=za(s.timeZone,u.timeZone),p=u.epochNanoseconds;if(p===s.epochNanoseconds)return B;let h;return h=Cr(T,c,s,u,d),h=to(h,p,d,l,f,m,Er(c,T,s),1),h})(n,e,t,o,r,i,a)}function Ga(n,e,t,o,r,i,a){return o<=6?Nt(L(e),L(t),o,r,i,a):((c,s,u,d,l,f,m)=>{let T=L(u),p=J(T,L(s));if(!p)return B;let h;return h=Ka(c,s,u,p,d),h=to(h,T,d,l,f,m,((g,D)=>({ne:L(D),X:O=>L(P(xn(g,D,O),D))}))(c,s)),h})(n,e,t,o,r,i,a)}function _a(n,e,t,o,r,i,a){let c=et(n,e),s=et(n,t);return Zr(c,s)?Ja(n,Q(c),Q(s),o,r,i,a,8):B}function Ha(n,e,t,o,r,i,a,c=6){return o===6?Nt(wn(e),wn(t),o,r,i,a):Ja(n,e,t,o,r,i,a,c)}function Va(n,e,t,o,r,i){let a=Oe(K(e)-K(n),io(o,r),i);return{...B,...so(a,t)}}function Ja(n,e,t,o,r,i,a,c=6){let s=wn(t);if(!Zr(e,t))return B;let u;return u=co(n,e,t,o),r===c&&i===1||(u=to(u,s,o,r,i,a,Sr(n,e))),u}function Nt(n,e,t,o,r,i){return{...B,...qn(oo(e-n,gt(o,r),i),t)}}function Cr(n,e,t,o,r){return r<6?{...B,...qn(o.epochNanoseconds-t.epochNanoseconds,r)}:((i,a,c)=>{let s=J(c.epochNanoseconds,a.epochNanoseconds);if(!s)return B;if(!Zr(R(a),R(c)))return{...B,...qn(c.epochNanoseconds-a.epochNanoseconds,5)};let[u,d,l]=hd(i,a,c,s);return{...(f=u,m=d,co(e,f,m,r)),...so(l)};var f,m})(n,t,o)}function Xa(n,e,t,o){let r=L(e),i=L(t),a=J(i,r);return a?o<=6?{...B,...qn(i-r,o)}:Ka(n,e,t,a,o):B}function Ka(n,e,t,o,r){let i=t,a=K(t)-K(e);return Math.sign(a)===-o&&(i=we(t,-o),a+=kn*o),{...co(n,e,i,r),...so(a)}}function hd(n,e,t,o){let r=R(e),i=R(t),a=t.epochNanoseconds,c=0,s=K(i)-K(r);Math.sign(s)===-o&&c++;let u=o>0?2:1;for(;;c++){let d=we(i,c*-o),l=ye(n,P(d,r));if(c===u||J(a,l)!==-o)return[r,d,Number(a-l)]}}function co(n,e,t,o){if(o<=7)return((p,h,g)=>{let D=So(h,g);return p?{...B,weeks:be(D,7),days:Jo(D,7)}:{...B,days:D}})(o===7,e,t);let r=F(n,e),i=F(n,t);if(o===8){let{year:p,month:h,day:g}=r,{year:D,month:O,day:N}=i,A=Math.sign(Pn(D,p)||Pn(O,h)||So(e,t)),W=0,mn=0;if(A){W=n?n.ee(p,h,D,O):Yu(p,h,D,O);let en=jt(n,e,0,W,0);A*Pn(g,N)>0&&(W-=A,en=jt(n,e,0,W,0)),mn=So(en,t)}return{...B,months:W,days:mn}}let{year:a,month:c,day:s}=r,{year:u,month:d,day:l}=i,f=u-a,m=d-c,T=l-s;if(f||m){let p=Math.sign(f||m),h=Qe(n,u,d),g=0;if(Math.sign(l-s)===-p){let D=h;({year:u,month:d}=La(n,u,d,-p)),f=u-a,m=d-c,h=Qe(n,u,d),g=p<0?-D:h}if(T=l-Math.min(s,h)+g,f){let[D,O]=ae(n,a,c),[N,A]=ae(n,u,d),W=n?n.l:void 0;if(m=W!==void 0&&O&&!A&&(W<0?p>0&&N===-W:p<0&&N===D)?0:N-D||Number(A)-Number(O),Math.sign(m)===-p){let mn=p<0&&-Ke(n,u);u-=p,f=u-a,m=d-Uo(n,D,O,n?n.p(u):void 0,0)+(mn||Ke(n,u))}else if(n){let mn=Uo(n,D,O,n.p(u),0);m=n.ee(u,mn,u,d)}}}return{...B,years:f,months:m,days:T}}function Zr(n,e){return Pn(n.year,e.year)||Pn(n.month,e.month)||Pn(n.day,e.day)}function So(n,e){return Nn(e)-Nn(n)}function Qa(n,e,t){return Ot(n)?((o,r,i)=>{let{calendar:a,timeZone:c}=o,s=It(o,r);return[Cr(c,a,o,s,i),s.epochNanoseconds,Er(a,c,o)]})(n,e,t):((o,r,i)=>{let{calendar:a}=o,c=he(P(o,gn)),s=vt(a,c,r);return[Xa(a,c,s,i),L(s),Sr(a,o)]})(n,e,t)}function ki(n,e){return Ot(n)?It(n,e).epochNanoseconds:L(vt(n.calendar,P(n,gn),e))}function Pr(n,e){return rc(e)?n.X(e):n.ne}function Er(n,e,t){let o=R(t);return{ne:t.epochNanoseconds,X:r=>ye(e,P(xn(n,o,r),o))}}function Sr(n,e){return{ne:wn(e),X:t=>wn(xn(n,e,t))}}function Ot(n){return"timeZone"in n}function Lt(n,e){return n<=6-(e?1:0)}function wr(n,e,t){let o={};for(let r=e;r>=0;r--){let i=Tn[r];o[t[r]]=be(n,i),n=Jo(n,i)}return o}var pd=2**53;function Br(n,e,t){let o=Math.max(Rn(e),Rn(t));return pn("unit",o,0,6,1,b),((r,i,a,c)=>Dn(Hn(((s,u,d,l)=>{let f=Bn(s)+Bn(u)*BigInt(l?-1:1);return Number.isFinite(Number(f/C))||y($n),{...B,...qn(f,d)}})(i,a,c,r))))(n,e,t,o)}function nc(n,e,t){let o=Rn(e),[r,i,a,c,s]=((m,T,p)=>{m=eo(m,Sn);let h=Ca(m),g=p(m.relativeTo),D=hr(m),O=Se(m,7),N=Ee(m);return h===void 0&&N===void 0&&y("Required smallestUnit or largestUnit"),N==null&&(N=0),h==null&&(h=Math.max(N,T)),Ea(h,N),D=gr(D,N,1),D>1&&N>5&&h!==N&&y("For calendar units with roundingIncrement > 1, use largestUnit = smallestUnit"),[h,N,D,O,g]})(t,o,n);if(!s&&Math.max(o,r)<=6)return Dn(Hn(((m,T,p,h,g)=>{let D=oo(Bn(m),gt(p,h),g);return{...B,...qn(D,T)}})(e,r,i,a,c)));s||y("Missing relativeTo");let u=Ot(s);if(!e.sign&&(!u||r<6))return e;let[d,l,f]=Qa(s,e,r);return Dn(to(d,l,r,i,a,c,f,u))}function ec(n){return n.sign===-1?Rr(n):n}function Rr(n){return Dn(an(n))}function an(n){let e={};for(let t of b)e[t]=-1*n[t]||0;return e}function Be(n,e=b){let t=0;for(let o of e){let r=Math.sign(n[o]);r&&(t&&t!==r&&y("Cannot mix duration signs"),t=r)}return t}function Hn(n){for(let t of Uu)yd(t,n[t]);let e=Bn(n);return tc(Number(e/ie)),n}function yd(n,e){return pn(n,e,-4294967295,4294967295,1)}function tc(n){Number.isSafeInteger(n)||y("Out-of-bounds duration")}function Bn(n){return BigInt(n.days)*C+Re(n)}function Re(n){return BigInt(n.hours)*vu+BigInt(n.minutes)*Iu+oc(n)}function oc(n){return BigInt(n.seconds)*ie+BigInt(n.milliseconds)*Ce+BigInt(n.microseconds)*Du+BigInt(n.nanoseconds)}function qn(n,e=6){let t=Number(n/C),o=Number(n%C),r=Tn[e],i=e<=3?Number(n/BigInt(r)):t*(kn/r)+be(o,r);Number.isFinite(i)||y($n),e<=3&&Math.abs(i)/(se/Tn[e])>=pd&&y($n);let a=wr(o,e,b);return a[b[e]]=i,a}function so(n,e=5){return wr(n,e,b)}function rc(n){return!!Be(n,Fa)}function Rn(n){let e=9;for(;e>0&&!n[b[e]];e--);return e}function Ft(n,e){return J(n.epochNanoseconds,e.epochNanoseconds)}function ic(n,e,t,o){let r=n(ln(o).relativeTo),i=Math.max(Rn(e),Rn(t));return Hi(b,e,t)?0:Lt(i,r&&Ot(r))?J(Bn(e),Bn(t)):(r||y("Missing relativeTo"),J(ki(r,e),ki(r,t)))}function Yr(n,e){return Te(n,e)||uo(n,e)}function Te(n,e){return Pn(Nn(n),Nn(e))}function uo(n,e){return Pn(K(n),K(e))}function ac(n,e){return!Ft(n,e)}function cc(n,e){return!Ft(n,e)&&n.timeZone.m===e.timeZone.m&&n.calendar===e.calendar}function sc(n,e){return!Yr(n,e)&&n.calendar===e.calendar}function uc(n,e){return!Te(n,e)&&n.calendar===e.calendar}function dc(n,e){return!Te(n,e)&&n.calendar===e.calendar}function fc(n,e){return!Te(n,e)&&n.calendar===e.calendar}function mc(n,e){return!uo(n,e)}function bt(n){return n===0?Tu:n?n.k:void 0}function G(n,e,t=e){return bt(n)?t:e}function lc(n,e){let t=e||void 0,o=bt(e),{era:r,eraYear:i,year:a}=n;if(a!==void 0&&(a=w(a,"year")),i!==void 0&&(i=w(i,"eraYear")),r!==void 0||i!==void 0){r!==void 0&&i!==void 0||M("Mismatching era/eraYear"),o||y("Forbidden era/eraYear");let c=Ki(r),s=o[c];s===void 0&&y((d=>`Invalid era: ${d}`)(r));let u=t?._?t._(i,c,s):Td(i,s);a!==void 0&&a!==u&&y("Mismatching year/eraYear"),a=u}else a===void 0&&M(Lo(o));return a}function zt(n,e,t,o,r){let{month:i,monthCode:a}=n;if(a!==void 0){let c=((s,u,d,l,f=na(u))=>{let m=s?s.p(d):void 0,[T,p]=f,h=Ro(T,p,m);if(p){let g=s?s.l:void 0;g===void 0&&y(re),g>0?(h>g&&y(re),m!==h&&(l===1&&y(re),h=Ro(T,0,m))):(h!==-g&&y(re),m===void 0&&l===1&&y(re))}return h})(e,a,t,r,o);i!==void 0&&i!==c&&y("Mismatching month/monthCode"),i=c,r=1}else i===void 0&&M("Missing month/monthCode");return pn("month",i,1,Ke(e,t),r)}function Ao(n,e,t,o,r){return Bo(n,"day",1,Qe(e,t,o),r)}function Td(n,e){return(e+n)*(Math.sign(e)||1)||0}function Ye(n,e){return Vt(Mn($,{...gn,...n}),e)}var gd=/^([+-])([01]\\d|2[0-3])(?:(:?)([0-5]\\d)(?:\\3([0-5]\\d)(?:[.,](\\d{1,9}))?)?)?$/;function kr(n){let e=hc(n);return e===void 0&&y($o(n)),e}function hc(n,e){let t=gd.exec(n);if(t)return e&&t[5]&&y($o(n)),(o=>o&&o!=="+"?-1:1)(t[1])*(parseInt(t[2])*st+tn(t[4])*ct+tn(t[5])*se+Je(t[6]||""))}var cn={era:Qt,month:Ve,monthCode(n,e){return q(lr(n),e)},day:Ve},xr=rt($,w),pc=rt(b,yt),Ur=Object.assign({},cn,xr),Ar={offset(n){return kr(q(lr(n)))},...Ur};function E(n,e,t,o,r=!o){let i={},a=0;for(let c of e){let s=n[c];if(s!==void 0){a=1;let u=t[c];u&&(s=u(s,c)),i[c]=s}else o&&o.includes(c)&&M(tt(c))}return r&&!a&&M("No valid fields: "+e.join()),i}function I(n){return n===void 0?0:Za(te(n))}function ce(n,e=0){n=ln(n);let t=Pa(n),o=Ju(n,e);return[Za(n),o,t]}function yc(n){return Pa(ln(n))}function sn(n,e,t){let o=bt(e);n.year!==void 0||n.era!==void 0&&n.eraYear!==void 0||M(Lo(o)),n.monthCode===void 0&&n.month===void 0&&M("Missing month/monthCode"),t||n.day!==void 0||M(tt("day"));let r=Tc(n);return[lc(n,e),r]}function fo(n,e){let t=e===X,o=bt(e);n.day===void 0&&M(tt("day")),t||n.month===void 0||n.year!==void 0||n.era!==void 0&&n.eraYear!==void 0||M(Lo(o));let r=Tc(n);return[n.eraYear!==void 0||n.year!==void 0?lc(n,e):void 0,r]}function Ct(n,e=gn,t){let o=P(n,e);return he(o),On(o,t)}function Un(n,e,t,o,r){let i=zt(n,e,t,o,r);return Z(Q(me(e,t,i,Ao(n,e,t,i,r))),e)}function mo(n,e,t,o,r){return Dd(e,t,zt(n,e,t,o,r))}function lo(n,e,t,o,r){let i=e===X,a=t,c,s,u;if(a===void 0&&i&&(a=1972),a!==void 0){i||Q(me(e,a,1,1));let d=zt(n,e,a,o,r);c=Ao(n,e,a,d,r),[s,u]=ae(e,a,d)}else{n.monthCode===void 0&&M("Missing month/monthCode"),[s,u]=o;let d=e?e.re:1972;if(d!==void 0)c=Ao(n,e,d,zt(n,e,d,o,r),r);else{let l=r===0&&e?e.ge?.(s,u,n.day):void 0;c=l!==void 0?l:n.day}}return Id(e,s,u,c,n.day,r)}function Dd(n,e,t){return Z(nt(me(n,e,t,1)),n)}function Id(n,e,t,o,r,i){let a=t;a&&((n&&n.U?.[e])??1/0)<r&&(i===1&&y(re),a=0,o=qo(r,1,(n&&n.R)??1/0));let c=n?n.u(e,!!a,o):xo(e,!!a);for(;!c&&i===0&&o>1;)o--,c=n?n.u(e,!!a,o):xo(e,!!a);c||y("Cannot guess year");let{year:s,month:u}=c;return Z(Q(me(n,s,u,o)),n)}function Tc(n){if(n.monthCode!==void 0)return na(n.monthCode)}var Fn=Intl.DateTimeFormat;function vd(n,e){e<-864e13&&y($n);let t=n.formatToParts(e),o={};for(let r of t)o[r.type]=r.value;return o}var Md={El_Aaiun:16,Tucuman:12,Tirane:11,Riga:10,Simferopol:9,Vienna:9,Tunis:8,Boa_Vista:6,Fortaleza:6,Maceio:6,Noronha:6,Recife:6,Gaza:6,Hebron:6,DeNoronha:6},xt=-4e9;function gc(n,e=4){let t=pr(n),o=Se(n,4),r=Ee(n);return[o,...jr(Ne(Sn,r,0,e),t)]}function Wr(n){return Tr(ln(n))}function Dc(n,e){return gc(ln(n),e)}function jr(n,e){return n!=null?[Tn[n],n<4?9-3*n:-1]:[e===void 0?1:10**(9-e),e]}function Lr(n,e,t){let[o,r,i,a]=(s=>{let u=pr(s=ln(s)),d=Se(s,4),l=Ee(s);return[s.timeZone,d,...jr(Ne(Sn,l,0,4),u)]})(t),c=o!==void 0;return((s,u,d,l,f,m)=>{d=ro(d,BigInt(f),l);let T=u.B(d);return Vr(ht(d+BigInt(T)),m)+(s?Zt(Wt(T)):"Z")})(c,H(c?n(o):"UTC"),e.epochNanoseconds,r,i,a)}function zr(n,e){let t=(o=>{o=ln(o);let r=Tr(o),i=pr(o),a=Ku(o),c=Se(o,4),s=Ee(o);return[r,Xu(o),a,c,...jr(Ne(Sn,s,0,4),i)]})(e);return((o,r,i,a,c,s,u,d,l,f)=>{a=ro(a,BigInt(l),d);let m=i.B(a);return Vr(ht(a+BigInt(m)),f)+Zt(Wt(m),u)+Fd(r,s)+Jr(o,c)})(n.calendar,n.timeZone.id,n.timeZone,n.epochNanoseconds,...t)}function $r(n,e){let t=(o=>(o=ln(o),[Tr(o),...gc(o)]))(e);return((o,r,i,a,c,s)=>Vr(Aa(r,c,a),s)+Jr(o,i))(n.calendar,n,...t)}function qr(n,e){return t=n.calendar,o=n,r=Wr(e),$t(o)+Jr(t,r);var t,o,r}function Gr(n,e){return Ic(n.calendar,vc,n,Wr(e))}function _r(n,e){return Ic(n.calendar,Od,n,Wr(e))}function Ic(n,e,t,o){let r=o>1||o===0&&n!==X;return o===1?n===X?e(t):$t(t):r?$t(t)+Nc(yn(n),o===2):e(t)}function Hr(n,e){return((t,o,r,i)=>Mc(Or(t,r,o)[0],i))(n,...Dc(e))}function ho(n,e){let[t,o,r]=Dc(e,3);return o>1&&((n={...n,...od(n,o,t)}).sign=Be(n),Hn(n)),Nd(n,r)}function Nd(n,e){let{sign:t}=n,o=t===-1?an(n):n,{hours:r,minutes:i}=o,a=oc(o),c=Number(a/ie),s=Number(a%ie);tc(c);let u=Xr(s,e),d=e>=0||!t||u;return(t<0?"-":"")+"P"+xi({Y:oe(o.years),M:oe(o.months),W:oe(o.weeks),D:oe(o.days)})+(r||i||c||d?"T"+xi({H:oe(r),M:oe(i),S:oe(c,d)+u}):"")}function xi(n){let e=[];for(let t in n){let o=n[t];o&&e.push(o,t)}return e.join("")}function oe(n,e){if(!n&&!e)return"";let t=Object.create(null);return t.useGrouping=0,n.toLocaleString("fullwide",t)}function Vr(n,e){return $t(n)+"T"+Mc(n,e)}function $t(n){return vc(n)+"-"+hn(n.day)}function vc(n){let{year:e}=n;return(e<0||e>9999?Oc(e)+At(6,Math.abs(e)):At(4,e))+"-"+hn(n.month)}function Od(n){return hn(n.month)+"-"+hn(n.day)}function Mc(n,e){let t=[hn(n.hour),hn(n.minute)];return e!==-1&&t.push(hn(n.second)+((o,r,i,a)=>Xr(o*at+r*it+i,a))(n.millisecond,n.microsecond,n.nanosecond,e)),t.join(":")}function Zt(n,e=0){if(e===1)return"";let[t,o]=En(Math.abs(n),st),[r,i]=En(o,ct),[a,c]=En(i,se);return Oc(n)+hn(t)+":"+hn(r)+(a||c?":"+hn(a)+Xr(c):"")}function Fd(n,e){return e!==1?"["+(e===2?"!":"")+n+"]":""}function Jr(n,e){return e>1||e===0&&n!==X?Nc(yn(n),e===2):""}function Nc(n,e){return"["+(e?"!":"")+"u-ca="+n+"]"}var bd=/0+$/;function Xr(n,e){let t=At(9,n);return t=e===void 0?t.replace(bd,""):t.slice(0,e),t?"."+t:""}function Oc(n){return n<0?"-":"+"}var Cd=/^(AC|AE|AG|AR|AS|BE|BS|CA|CN|CS|CT|EA|EC|IE|IS|JS|MI|NE|NS|PL|PN|PR|PS|SS|VS)T$/,Zd=/[^\\w\\/:+-]+/;function Fc(n){return po(q(n))}function po(n){return bc(n).id}var bc=Me(n=>{let e=n.toUpperCase(),t=(r=>{let i=hc(r,1);if(i!==void 0)return{id:Zt(i),Z:i,m:i}})(e);if(t)return{kind:"fixed",...t};let o=e==="UTC"?"UTC":(r=>(Zd.test(r)&&y(zo(r)),Cd.test(r)&&y("Forbidden ICU TimeZone"),r.toLowerCase().split("/").map((i,a)=>(i.length<=3||/\\d/.test(i))&&!/etc|yap/.test(i)?i.toUpperCase():i.replace(/baja|dumont|[a-z]+/g,(c,s)=>c.length<=2&&!a||c==="in"||c==="chat"?c.toUpperCase():c.length>2||!s?Bi(c).replace(/island|noronha|murdo|rivadavia|urville/,Bi):c)).join("/")))(n);return Pd(o)}),Pd=Me(n=>{if(n==="UTC")return{kind:"utc",id:n,m:n};let e=(t=n.toUpperCase(),new Fn("en-u-hc-h23",{calendar:"iso8601",timeZone:t,era:"short",year:"numeric",month:"numeric",day:"numeric",hour:"numeric",minute:"numeric",second:"numeric"}));var t;return{kind:"named",id:n,format:e,m:e.resolvedOptions().timeZone}});function H(n){let e=bc(n);return Ed(e.id,e)}var Ed=Me((n,e)=>e.kind==="named"?new jo(n,e.m,e.format):new Wo(n,e.m,e.kind==="fixed"?e.Z:0)),Wo=class{constructor(e,t,o){this.id=e,this.m=t,this.Z=o}B(){return this.Z}O(e){return[vr(e,this.Z)]}C(){}},jo=class{constructor(e,t,o){this.id=e,this.m=t,this.me=((r,i)=>{let a=Me(r),c=Me(Sd),s=86400*i;function u(f){let[m,T]=Ui(f,s),p=Ut(m),h=Ut(T),g=a(p),D=a(h);return g===D?g:l(c(p,h),g,D,f)}function d(f,m,T,p=f){let[h,g]=Ui(f,s),D=s*m,O=()=>m<0?g>T:h<T;for(;O();){let N=Ut(h),A=Ut(g),W=a(N),mn=a(A);if(W!==mn){let en=c(N,A);l(en,W,mn);let j=en[0];if((Pn(j,p)||1)===m)return j}h+=D,g+=D}}function l(f,m,T,p){let h,g;for(;(p===void 0||(h=p<f[0]?m:p>=f[1]?T:void 0)===void 0)&&(g=f[1]-f[0]);){let D=f[0]+Math.floor(g/2);r(D)===T?f[1]=D:f[0]=D+1}return h}return{Ae(f){let m=u(f-86400),T=u(f+86400),p=f-m,h=f-T;if(m===T)return[p];let g=u(p);return g===u(h)?[f-g]:m>T?[p,h]:[]},ze:u,C(f,m){if(!(m>0&&f>=864e10))return m<0?f<=xt?void 0:f>4e9?d(f,-1,f-94867200)??d(4e9,-1,xt):d(f,-1,xt):d(Math.max(f,xt)-1,1,Math.max(f,Math.floor(Date.now()/1e3))+94867200,f)}}})((r=>i=>{let a=vd(r,1e3*i);return 86400*Xe((c=>{let s=c.relatedYear;if(s!==void 0)return parseInt(s);let u=parseInt(c.year);return c.era!==void 0&&Ki(c.era)==="bce"?1-u:u})(a),parseInt(a.month),parseInt(a.day))+3600*parseInt(a.hour)+60*parseInt(a.minute)+parseInt(a.second)-i})(o),(r=>{let i=r.split("/").pop();return Md[i]||19})(e))}B(e){return this.me.ze((t=>Ri(t)[0])(e))*se}O(e){let t=86400*Nn(e)+or(e),o=fa(e);return this.me.Ae(t).map(r=>In(BigInt(r)*ie+BigInt(o)))}C(e,t){let[o,r]=Ri(e),i=this.me.C(o+(t>0||r?1:0),t);if(i!==void 0)return BigInt(i)*ie}};function Sd(n,e){return[n,e]}function Ui(n,e){let t=Math.floor(n/e)*e;return[t,t+e]}function Ut(n){return qo(n,-1e10,864e10)}function Cc(n,e,t){let o=E(t,G(e,ua,da),Ar,[],0),r=o.timeZone!==void 0,[i,a]=sn(o,e),c=Un(o,e,i,a,0);if(r){let s=Ye(o),u=H(n(o.timeZone));return{epochNanoseconds:Dt(u,P(c,s),o.offset),timeZone:u,calendar:e}}return c}function Zc(n,e,t,o){let r=E(t,G(e,ua,da),Ar,nr,0),i=n(r.timeZone),[a,c]=sn(r,e),[s,u,d]=ce(o),l=Un(r,e,a,c,s),f=Ye(r,s),m=H(i);return rn(Dt(m,P(l,f),r.offset,u,d),m,e)}function Pc(n,e,t){let o=E(e,G(n,ca,sa),Ur,[],0),[r,i]=sn(o,n),a=I(t);return Ct(Un(o,n,r,i,a),Ye(o,a),n)}function Ec(n,e,t,o=[]){let r=E(e,G(n,de,fe),cn,o),[i,a]=sn(r,n);return Un(r,n,i,a,I(t))}function Sc(n,e,t,o){let r=E(e,G(n,dt,ra),cn,o),[i,a]=sn(r,n,1);return mo(r,n,i,a,I(t))}function wc(n,e,t,o){let r=E(t,G(n,de,fe),cn,ue,0);e&&r.month!==void 0&&r.monthCode===void 0&&r.year===void 0&&(r.year=1972);let[i,a]=fo(r,n);return lo(r,n,i,a,I(o))}function Bc(n,e){return Ye(E(n,ko,xr,[],1),I(e))}function Rc(n){let e=E(n,Oa,pc);return Dn(Hn({...B,...e}))}function Yn(n){y($o(n))}function Yc(n){let e=Vn(n=q(lr(n))),t;return e||Yn(n),e.I?t=0:e.offset?t=kr(e.offset):Yn(n),on(vr(e,t))}function kc(n,e){let t=Vn(q(n));return t&&t.timeZoneId?Gc(t,e,void 0):Kr(Pt(n),e)}function xc(n,e,t){let o=Vn(q(n));return o&&o.timeZoneId||Yn(n),Gc(o,e,t)}function Uc(n,e){let t=Pt(n);return he(t),{...P(t,t),calendar:e(t.calendarId)}}function Ac(n,e){return Kr(Pt(n),e)}function Wc(n,e){let t=Qr(q(n))||Pt(n),o=e(t.calendarId);return Z(nt(et(o,nt(t))),o)}function jc(n,e){let t=ni(q(n))||Pt(n);if(t.calendarId==="iso8601")return Z({...t,year:1972},e("iso8601"));let{calendar:o}=Kr(t,e),{year:r,month:i,day:a}=F(o,t),[c,s]=ae(o,r,i),u=o?o.u(c,s,a):xo(c,s);return u||y("Cannot guess year"),Z(Q(me(o,u.year,u.month,a)),o)}function Lc(n){let e=Vn(n=q(n))||Hc(n);return(!e||!e.qe||e.I||Qr(n)||ni(n))&&Yn(n),pe(e)}function zc(n){let e=xd.exec(q(n));e&&!Ud.test(n)||Yn(n);let t=wr(3600*Je(e[7]||"")+60*Je(e[9]||"")+Je(e[11]||""),4,b),o={...t,years:tn(e[2]),months:tn(e[3]),weeks:tn(e[4]),days:tn(e[5]),hours:tn(e[6]),minutes:tn(e[8])+t.minutes,seconds:tn(e[10])+t.seconds};return Dn(Hn(e[1]==="-"?an(o):o))}function $c(n){let e=Vn(n)||Qr(n)||ni(n)||Hc(n);return e?e.calendarId:n}function qc(n){let e=Vn(n);return e&&(e.timeZoneId||e.I&&"UTC"||e.offset)||n}function Pt(n){let e=Vn(q(n));return e&&!e.I||Yn(n),e}function Gc(n,e,t){let o=H(po(n.timeZoneId)),r;if(n.qe){let a=n.offset?kr(n.offset):void 0,[,c,s]=ce(t);r=Dt(o,n,a,c,s,!(o.Z||n.offset===void 0||(i=n.offset,i.length>6)),n.I)}else ce(t),r=Fe(o,n);var i;return In(r),rn(r,o,e(n.calendarId))}function Kr(n,e){return Z(Q(n),e(n.calendarId))}function Ai(n,e=""){return`([01]\\\\d|2[0-3])(?:(:?)([0-5]\\\\d)(?:\\\\${n}([0-5]\\\\d${e})(?:[.,](\\\\d{1,9}))?)?)?`}var wd="((?!-0{6})[+-]\\\\d{6}|\\\\d{4})(-?)(0[1-9]|1[0-2])\\\\2(0[1-9]|[12]\\\\d|3[01])(?:[Tt ]"+Ai(6,"|60")+"(?:([Zz])|(([+-])"+Ai(14)+"))?)?",Bd=Ho("((?!-0{6})[+-]\\\\d{6}|\\\\d{4})-?(0[1-9]|1[0-2])(?:\\\\[!?([+-](?:[01]\\\\d|2[0-3])(?::?[0-5]\\\\d)?|[a-zA-Z._][\\\\w.+-]*(?:/[a-zA-Z._][\\\\w.+-]*)*)\\\\])?((?:\\\\[!?[a-z_][a-z\\\\d_-]*=[a-zA-Z\\\\d]+(?:-[a-zA-Z\\\\d]+)*\\\\])*)"),Rd=Ho("(?:--)?(0[1-9]|1[0-2])-?(0[1-9]|[12]\\\\d|3[01])(?:\\\\[!?([+-](?:[01]\\\\d|2[0-3])(?::?[0-5]\\\\d)?|[a-zA-Z._][\\\\w.+-]*(?:/[a-zA-Z._][\\\\w.+-]*)*)\\\\])?((?:\\\\[!?[a-z_][a-z\\\\d_-]*=[a-zA-Z\\\\d]+(?:-[a-zA-Z\\\\d]+)*\\\\])*)"),Yd=Ho(wd+"(?:\\\\[!?([+-](?:[01]\\\\d|2[0-3])(?::?[0-5]\\\\d)?|[a-zA-Z._][\\\\w.+-]*(?:/[a-zA-Z._][\\\\w.+-]*)*)\\\\])?((?:\\\\[!?[a-z_][a-z\\\\d_-]*=[a-zA-Z\\\\d]+(?:-[a-zA-Z\\\\d]+)*\\\\])*)"),kd=/\\[(!?)([^=]+)=([^\\]]+)/g,xd=/^([+-])?P(\\d+Y)?(\\d+M)?(\\d+W)?(\\d+D)?(?:T(?:(\\d+)(?:[.,](\\d{1,9}))?H)?(?:(\\d+)(?:[.,](\\d{1,9}))?M)?(?:(\\d+)(?:[.,](\\d{1,9}))?S)?)?$/i,Ud=/[PT]$|[.,]\\d+[HMS]./i;function Vn(n){let e=Yd.exec(n);if(!e)return;let t=(o=>({year:parseInt(o[1]),month:parseInt(o[3]),day:parseInt(o[4]),...rr(Je(o[9]||""))[0],hour:tn(o[5]),minute:tn(o[7]),second:Math.min(tn(o[8]),59),...ei(o[18],o[19]),qe:!!o[5],I:!!o[10],offset:o[11]}))(e);return Pe(t)}function Qr(n){let e=Bd.exec(n);return e?_c((t=>({year:parseInt(t[1]),month:parseInt(t[2]),day:1,...ei(t[3],t[4])}))(e)):void 0}function ni(n){let e=Rd.exec(n);if(e){let o=(r=>({year:1972,month:parseInt(r[1]),day:parseInt(r[2]),...ei(r[3],r[4])}))(e);if(Hi(Qo,t=o,Ia(t)))return _c(o)}var t}function _c(n){return n.calendarId!=="iso8601"&&Yn(n.calendarId),n}function Hc(n){let e=Vn(n.replace(/^t?/i,"0000-01-01T"));return e&&!e.I?e:void 0}function ei(n,e){let t,o=[];return e.replace(kd,(r,i,a,c)=>(a==="u-ca"?(o.push(c.toLowerCase()),t||(t=i)):i&&Yn(r),"")),o.length>1&&t&&Yn(e),{timeZoneId:n,calendarId:o[0]||"iso8601"}}function ke(n,e,t){let o=Object.assign(Object.create(null),e);return wo(o,t,oa),bt(n)&&(wo(o,t,Mu),n&&n.je&&wo(o,t,Nu,Ze)),o}function wo(n,e,t,o){let r=0,i=[];for(let a of t)e[a]!==void 0?r=1:i.push(a);if(Object.assign(n,e),r)for(let a of o||i)delete n[a]}function Vc(n,e,t){let o=G(n,Fu,bu),r=R(e),{year:i,month:a,day:c}=F(n,r),s={year:i,monthCode:Et(n,i,a),day:c,hour:r.hour,minute:r.minute,second:r.second,millisecond:r.millisecond,microsecond:r.microsecond,nanosecond:r.nanosecond,offset:r.offsetNanoseconds},u=E(t,o,Ar),d=ke(n,s,u);return[{...s,...u},d]}function Jc(n,e,t){let o=G(n,ca,sa),{year:r,month:i,day:a}=F(n,e),c={year:r,monthCode:Et(n,r,i),day:a,hour:e.hour,minute:e.minute,second:e.second,millisecond:e.millisecond,microsecond:e.microsecond,nanosecond:e.nanosecond},s=E(t,o,Ur),u=ke(n,c,s);return[{...c,...s},u]}function Xc(n,e,t){let o=G(n,de,fe),{year:r,month:i,day:a}=F(n,e);return ke(n,{year:r,monthCode:Et(n,r,i),day:a},E(t,o,cn))}function Kc(n,e,t){let o=G(n,dt,ra),{year:r,month:i}=F(n,e);return ke(n,{year:r,monthCode:Et(n,r,i)},E(t,o,cn))}function Qc(n,e,t){let o=G(n,de,fe),{year:r,month:i,day:a}=F(n,e);return ke(n,{monthCode:Et(n,r,i),day:a},E(t,o,cn))}function ns(n,e,t,o,r,i,a,c){let{calendar:s,timeZone:u}=n;return rn(Dt(u,P(Un(t,s,o,r,i),Vt(e,i)),e.offset,a,c),u,s)}function es(n,e,t,o,r,i){return Ct(Un(e,t,o,r,i),Vt(n,i),t)}function ts(n,e){return{...Mn(ko,n),...E(e,ko,xr)}}function os(n,e){return Dn((t=n,o=e,Hn({...t,...E(o,Oa,pc)})));var t,o}function Et(n,e,t){let[o,r]=ae(n,e,t);return ea(o,r)}function rs(n,e,t){let[o,r]=((l,f)=>{let m=f((l=eo(l,"unit")).relativeTo),T=Vu(l);return T=ba("unit",T),[T,m]})(t,n),i=Rn(e),a=Math.max(o,i),c=r&&Ot(r);if(!r&&Lt(a,c))return Wi(e,o);if(r||y("Missing relativeTo"),!e.sign&&(!c||o<6))return 0;let[s,u,d]=Qa(r,e,o);return Lt(o,c)?Wi(s,o):((l,f,m,T)=>{let p=b[m],h=fr(m,l);return ed(l[p],Be(l)||1,f,g=>(h[p]=g,Pr(T,h)))})(s,u,o,d)}function Wi(n,e){return ta(Bn(n),Tn[e])}function is(n,e,t){return rn(n.epochNanoseconds,e,t)}function as(n){return on(n.epochNanoseconds)}function ti(n){return On(R(n),n.calendar)}function oi(n){return Z(R(n),n.calendar)}function ri(n){return pe(R(n))}function cs(n,e,t){return rn(In(ye(e,n,t)),e,n.calendar)}function ss(n,e,t){let o;return o=t?ye(e,P(n,t)):Fe(e,P(n,gn)),rn(o,e,n.calendar)}function us(n,e,t){return ls(n,Mn(G(n,ft,ia),e),E(te(t),ue,cn,[]))}function ds(n,e,t){let o=G(n,_t,Ou);return ls(n,Mn(aa,e),E(te(t),o,cn,[]))}function fs(n,e){let t=E(e,aa,cn),[o,r]=fo(t,n);return lo(t,n,o,r,0)}function ms(n,e){let t=E(e,G(n,ft,ia),cn),[o,r]=sn(t,n,1);return mo(t,n,o,r,0)}function ls(n,e,t){let o=G(n,Cu,Zu),r=ke(n,e,t);r=E(r,o,cn,[]);let[i,a]=sn(r,n);return Un(r,n,i,a,0)}function hs(n){return on(In(BigInt(yt(n))*Ce))}function ps(n){return on(In(no(n)))}function xe(n){return n.timeZone="UTC",["full","long"].includes(n.timeStyle)&&(n.timeStyle="medium"),n}function ys(n,e){return n.timeZone!==void 0&&M("Cannot specify TimeZone"),n.timeZone=e,n}function Ue(n,e,t){let o=n.resolvedOptions().calendar;!t&&e.calendar===X||yn(e.calendar)===o||y("Mismatching Calendars")}function ge(n,e,t,o,r){let i=new Set(n),a=new Set(e),c=new Set(t);return(s,u)=>{let d,l,f={},m={},T={},p=0,h=0;for(let j of Object.keys(s)){let Ie=s[j];Ie===void 0||c.has(j)||(i.has(j)?j==="dateStyle"?d=Ie:j==="timeStyle"?l=Ie:f[j]=Ie:j==="era"?m[j]=Ie:a.has(j)?j==="dateStyle"||j==="timeStyle"?h=1:p=1:T[j]=Ie)}let g=d!==void 0,D=l!==void 0,O=g||D,N=Object.keys(f).length>0,A=p||h,W=N||g||D,mn=Object.keys(m).length>0;(!u&&A||u&&A&&!W||O&&(N||mn||p))&&M("Invalid formatting options");let en={};return O||W||Object.assign(en,o),Object.assign(en,f,m,T),g&&(r?Object.assign(en,r[d]):en.dateStyle=d),D&&(en.timeStyle=l),en}}var Ts={year:"numeric",month:"numeric",day:"numeric"},gs={hour:"numeric",minute:"numeric",second:"numeric"},ii=Object.assign({},Ts,gs),ai=["weekday","year","month","day","dateStyle"],St=["dayPeriod","hour","minute","second","fractionalSecondDigits","timeStyle"],ci=ai.concat(St),Ad=["weekday","day"].concat(St),Wd=["weekday","year"].concat(St),Ds=ge(ci,[],[],ii),Is=ge(ci,[],[],{...ii,timeZoneName:"short"}),vs=ge(ci,[],["timeZoneName"],ii),Ms=ge(ai,St,["timeZoneName"],Ts),Ns=ge(St,ai,["timeZoneName","era"],gs),Os=ge(["year","month","dateStyle"],Ad,["timeZoneName"],{year:"numeric",month:"numeric"},{full:{year:"numeric",month:"long"},long:{year:"numeric",month:"long"},medium:{year:"numeric",month:"short"},short:{year:"2-digit",month:"numeric"}}),Fs=ge(["month","day","dateStyle"],Wd,["timeZoneName","era"],{month:"numeric",day:"numeric"},{full:{month:"long",day:"numeric"},long:{month:"long",day:"numeric"},medium:{month:"short",day:"numeric"},short:{month:"numeric",day:"numeric"}});function bs(n,e){let{timeZone:t}=n,o=P(R(n),e||gn);return rn(e?ye(t,o):Fe(t,o),t,n.calendar)}function Cs(n){let e=eo(n,"direction"),t=Qu(e,0);return t||y(ve("direction",t)),t}function yo(n){let e=To(),t=n.B(e);return ht(e+BigInt(t))}function To(){return BigInt(Date.now())*Ce}function Ae(){return new Fn().resolvedOptions().timeZone||"UTC"}var si="PlainYearMonth",ui="PlainMonthDay",di="PlainDate",fi="PlainDateTime",mi="PlainTime",li="ZonedDateTime",hi="Instant",pi="Duration";function An(n,e,t,...o){return Object.defineProperties(e,_i(n)),Object.defineProperties(e.prototype,ot("Temporal."+n)),Object.defineProperties(e.prototype,Gn(r=>({get(){return r(t(this))},configurable:1}),Object.assign({},...o))),e}var Wn=_o.name!=="noop"||globalThis.process?_o:n=>{Object.defineProperty(n,"_str_",{value:n.toJSON()})};function jn(){M($i)}function Ln(){M(zi)}var Zs={era(n){return pt(n.calendar,n).era},eraYear(n){return pt(n.calendar,n).eraYear},year(n){return F(n.calendar,n).year},month(n){return F(n.calendar,n).month},monthCode(n){return Kt(n.calendar,n)}},go={era(n){return pt(n.calendar,n).era},eraYear(n){return pt(n.calendar,n).eraYear},year(n){return F(n.calendar,n).year},month(n){return F(n.calendar,n).month},monthCode(n){return Kt(n.calendar,n)},day(n){return F(n.calendar,n).day}},Ps={monthCode(n){return Kt(n.calendar,n)},day(n){return F(n.calendar,n).day}},Es={daysInMonth(n){return cr(n.calendar,n)},daysInYear(n){return sr(n.calendar,n)},monthsInYear(n){return ar(n.calendar,n)},inLeapYear(n){return ir(n.calendar,n)}},Do={dayOfWeek(n){return Xt(n)},dayOfYear(n){return va(n.calendar,n)},weekOfYear(n){return Ma(n.calendar,n)},yearOfWeek(n){return Na(n.calendar,n)},daysInWeek(){return 7},daysInMonth(n){return cr(n.calendar,n)},daysInYear(n){return sr(n.calendar,n)},monthsInYear(n){return ar(n.calendar,n)},inLeapYear(n){return ir(n.calendar,n)}};function yi(n,e,t,o){let[r,i,a,c]=le(n,o,3,5);return We(n,Nt(e.epochNanoseconds,t.epochNanoseconds,r,i,a,c))}function Ti(n,e,t,o){let r=Mt(e.calendar,t.calendar),[i,a,c,s]=le(n,o,5);return We(n,qa(r,e,t,i,a,c,s))}function gi(n,e,t,o){let r=Mt(e.calendar,t.calendar),[i,a,c,s]=le(n,o,6);return We(n,Ga(r,e,t,i,a,c,s))}function Di(n,e,t,o){let r=Mt(e.calendar,t.calendar),[i,a,c,s]=le(n,o,6,9,6);return We(n,Ha(r,e,t,i,a,c,s))}function Ii(n,e,t,o){let r=Mt(e.calendar,t.calendar),[i,a,c,s]=le(n,o,9,9,8);return We(n,_a(r,e,t,i,a,c,s))}function vi(n,e,t,o){let[r,i,a,c]=le(n,o,5,5);return We(n,Va(e,t,r,i,a,c))}function We(n,e){return Dn(n?an(e):e)}function Ss(n,e,t){let{calendar:o}=n,r=Xc(o,n,e),[i,a]=sn(r,o),c=I(t);return Un(r,o,i,a,c)}function ws(n,e,t){let{calendar:o}=n,[r,i]=Jc(o,n,e),[a,c]=sn(i,o),s=I(t);return es(r,i,o,a,c,s)}function Bs(n,e,t){let{calendar:o}=n,r=Kc(o,n,e),[i,a]=sn(r,o,1),c=I(t);return mo(r,o,i,a,c)}function Rs(n,e,t){let{calendar:o}=n,r=Qc(o,n,e),[i,a]=fo(r,o),c=I(t);return lo(r,o,i,a,c)}function Ys(n,e,t){let o=ts(n,e),r=I(t);return Ye(o,r)}function ks(n,e,t){let{calendar:o}=n,[r,i]=Vc(o,n,e),[a,c]=sn(i,o),[s,u,d]=ce(t,2);return ns(n,r,i,a,c,s,u,d)}function Qn(n){let e=q(n).toLowerCase();return e===Xo?X:e===Xi?Qi:void y(Gi(n,"temporal-polyfill/full"))}function Bt(n=Xo){return Qn(n)}var Us=new WeakMap,As=An(li,class{constructor(n,e,t=void 0){let o=In(no(n)),r=H(Fc(e)),i=Bt(t);Ws(this,rn(o,r,i))}static from(n,e=void 0){return V(je(n,e))}static compare(n,e){return Ft(je(n),je(e))}get calendarId(){return yn(v(this).calendar)}get timeZoneId(){return v(this).timeZone.id}get epochMilliseconds(){return mt(v(this).epochNanoseconds)}get epochNanoseconds(){return v(this).epochNanoseconds}get offset(){return Zt(R(v(this)).offsetNanoseconds)}get offsetNanoseconds(){return R(v(this)).offsetNanoseconds}get hoursInDay(){return ka(v(this))}with(n,e=void 0){return V(ks(v(this),Ge(n),e))}withCalendar(n){return V({...v(this),calendar:Mo(n)})}withTimeZone(n){return V({...v(this),timeZone:H(fn(n))})}withPlainTime(n=void 0){return V(bs(v(this),bi(n)))}add(n,e=void 0){let t=v(this);return V(It(t,x(n),I(e)))}subtract(n,e=void 0){let t=v(this);return V(It(t,an(x(n)),I(e)))}until(n,e=void 0){let t=v(this),o=je(n);return S(Ti(0,t,o,e))}since(n,e=void 0){let t=v(this),o=je(n);return S(Ti(1,t,o,e))}round(n){let e=v(this),[t,o,r]=Tt(n);return V(Ya(e,t,o,r))}startOfDay(){return V(xa(v(this)))}equals(n){return cc(v(this),je(n))}toInstant(){return zn(as(v(this)))}toPlainDateTime(){return bn(ti(v(this)))}toPlainDate(){return Cn(oi(v(this)))}toPlainTime(){return Kn(ri(v(this)))}toLocaleString(n=void 0,e={}){let t=v(this),o=new Fn(n,ys(Is(e),$a(t)));return Ue(o,t),o.format(mt(t.epochNanoseconds))}toString(n=void 0){return zr(v(this),n)}toJSON(){return zr(v(this))}getTimeZoneTransition(n){let e=v(this),t=e.timeZone.C(e.epochNanoseconds,Cs(n));return t!==void 0?V({...e,epochNanoseconds:t}):null}valueOf(){return Ln()}},jd,go,Do,ut);function V(n){return Ws(Object.create(As.prototype),n)}function v(n){return Zn(n)||jn()}function jd(n){let e=v(n);return{...R(e),calendar:e.calendar}}function Zn(n){return Us.get(n)}function je(n,e){if(_(n)){let t=Zn(n);if(t)return ce(e),t;let o=Rt(n);return Zc(fn,o,n,e)}return xc(n,Qn,e)}function Ws(n,e){return Us.set(n,e),Wn(n),n}function fn(n){if(_(n)){let e=Zn(n);return e||M(zo(n)),e.timeZone.id}return(e=>po(qc(q(e))))(n)}var js=new WeakMap,Ls=An(hi,class{constructor(n){let e=In(no(n));$s(this,on(e))}static from(n){return zn(Le(n))}static fromEpochMilliseconds(n){return zn(hs(n))}static fromEpochNanoseconds(n){return zn(ps(n))}static compare(n,e){return Ft(Le(n),Le(e))}get epochMilliseconds(){return mt(un(this).epochNanoseconds)}get epochNanoseconds(){return un(this).epochNanoseconds}add(n){let e=un(this);return zn(on(br(e.epochNanoseconds,x(n))))}subtract(n){let e=un(this);return zn(on(br(e.epochNanoseconds,an(x(n)))))}until(n,e=void 0){return S(yi(0,un(this),Le(n),e))}since(n,e=void 0){return S(yi(1,un(this),Le(n),e))}round(n){let e=un(this),[t,o,r]=Tt(n,5,1);return zn(on(ro(e.epochNanoseconds,gt(t,o),r)))}equals(n){return ac(un(this),Le(n))}toZonedDateTimeISO(n){return V(is(un(this),H(fn(n))))}toLocaleString(n=void 0,e={}){let t=un(this);return new Fn(n,Ds(e)).format(mt(t.epochNanoseconds))}toString(n=void 0){return Lr(fn,un(this),n)}toJSON(){return Lr(fn,un(this))}valueOf(){return Ln()}});function zn(n){return $s(Object.create(Ls.prototype),n)}function un(n){return Oi(n)||jn()}function Oi(n){return js.get(n)}function Le(n){if(_(n)){let e=Oi(n);if(e)return e;let t=Zn(n);if(t)return on(t.epochNanoseconds)}return Yc(n)}var{toTemporalInstant:zs}={toTemporalInstant(){let n=Date.prototype.valueOf.call(this);return zn(on(BigInt(mr(n))*Ce))}};function $s(n,e){return js.set(n,e),Wn(n),n}var qs=new WeakMap,Gs=An(ui,class{constructor(n,e,t=void 0,o){let r=w(n),i=w(e),a=Bt(t),c=w(o??pa),s=Q(Pe({year:c,month:r,day:i}));_s(this,Z(s,a))}static from(n,e=void 0){return Ni(xs(n,e))}get calendarId(){return yn(Jn(this).calendar)}with(n,e=void 0){return Ni(Rs(Jn(this),Ge(n),e))}equals(n){return fc(Jn(this),xs(n))}toPlainDate(n){let e=Jn(this);return Cn(ds(e.calendar,this,n))}toLocaleString(n=void 0,e={}){let t=Jn(this),o=new Fn(n,xe(Fs(e)));return Ue(o,t,1),o.format(lt(t))}toString(n=void 0){return _r(Jn(this),n)}toJSON(){return _r(Jn(this))}valueOf(){return Ln()}},Jn,Ps);function Ni(n){return _s(Object.create(Gs.prototype),n)}function Jn(n){return Io(n)||jn()}function Io(n){return qs.get(n)}function xs(n,e){if(_(n)){let o=Io(n);if(o)return I(e),o;let r=au(n);return wc(r===void 0?X:r,r===void 0,n,e)}let t=jc(n,Qn);return I(e),t}function _s(n,e){return qs.set(n,e),Wn(n),n}var Hs=new WeakMap,Vs=An(si,class{constructor(n,e,t=void 0,o){let r=w(n),i=w(e),a=Bt(t),c=w(o??1),s=nt(Pe({year:r,month:i,day:c}));Js(this,Z(s,a))}static from(n,e=void 0){return wt(ze(n,e))}static compare(n,e){return Te(ze(n),ze(e))}get calendarId(){return yn(dn(this).calendar)}with(n,e=void 0){return wt(Bs(dn(this),Ge(n),e))}add(n,e=void 0){let t=dn(this);return wt(Z(Fr(t.calendar,t,x(n),I(e)),t.calendar))}subtract(n,e=void 0){let t=dn(this);return wt(Z(Fr(t.calendar,t,an(x(n)),I(e)),t.calendar))}until(n,e=void 0){let t=dn(this),o=ze(n);return S(Ii(0,t,o,e))}since(n,e=void 0){let t=dn(this),o=ze(n);return S(Ii(1,t,o,e))}equals(n){return dc(dn(this),ze(n))}toPlainDate(n){let e=dn(this);return Cn(us(e.calendar,this,n))}toLocaleString(n=void 0,e={}){let t=dn(this),o=new Fn(n,xe(Os(e)));return Ue(o,t,1),o.format(lt(t))}toString(n=void 0){return Gr(dn(this),n)}toJSON(){return Gr(dn(this))}valueOf(){return Ln()}},dn,Zs,Es);function wt(n){return Js(Object.create(Vs.prototype),n)}function dn(n){return vo(n)||jn()}function vo(n){return Hs.get(n)}function ze(n,e){if(_(n)){let o=vo(n);if(o)return I(e),o;let r=Rt(n);return Sc(r,n,e)}let t=Wc(n,Qn);return I(e),t}function Js(n,e){return Hs.set(n,e),Wn(n),n}function Ld(n){if(!_(n))return;let e=Oi(n);return e?[hi,e]:(e=Zn(n),e?[li,e]:(e=De(n),e?[fi,e]:(e=_e(n),e?[di,e]:(e=Fi(n),e?[mi,e]:(e=vo(n),e?[si,e]:(e=Io(n),e?[ui,e]:(e=Ci(n),e?[pi,e]:void 0)))))))}function Ge(n){return(Ld(n)||n.calendar!==void 0||n.timeZone!==void 0)&&M(ji),n}var Xs=new WeakMap,Ks=An(mi,class{constructor(n=0,e=0,t=0,o=0,r=0,i=0){let a=er(Gn(w,{hour:n,minute:e,second:t,millisecond:o,microsecond:r,nanosecond:i}));Qs(this,pe(a))}static from(n,e=void 0){return Kn(Xn(n,e))}static compare(n,e){return uo(Xn(n),Xn(e))}with(n,e=void 0){return Kn(Ys(vn(this),Ge(n),e))}add(n){let e=vn(this);return Kn(ao(e,x(n))[0])}subtract(n){let e=vn(this);return Kn(ao(e,an(x(n)))[0])}until(n,e=void 0){return S(vi(0,vn(this),Xn(n),e))}since(n,e=void 0){return S(vi(1,vn(this),Xn(n),e))}round(n){let e=vn(this),[t,o,r]=Tt(n,5);return Kn(Ua(e,t,o,r)[0])}equals(n){return mc(vn(this),Xn(n))}toLocaleString(n=void 0,e={}){let t=vn(this);return new Fn(n,xe(Ns(e))).format(tr(t))}toString(n=void 0){return Hr(vn(this),n)}toJSON(){return Hr(vn(this))}valueOf(){return Ln()}},vn,ut);function Kn(n){return Qs(Object.create(Ks.prototype),n)}function vn(n){return Fi(n)||jn()}function Fi(n){return Xs.get(n)}function Xn(n,e){if(_(n)){let o=Fi(n);if(o)return I(e),o;let r=De(n);if(r)return I(e),pe(r);let i=Zn(n);return i?(I(e),ri(i)):Bc(n,e)}let t=Lc(n);return I(e),t}function bi(n){return n===void 0?void 0:Xn(n)}function Qs(n,e){return Xs.set(n,e),Wn(n),n}var nu=new WeakMap,eu=An(fi,class{constructor(n,e,t,o=0,r=0,i=0,a=0,c=0,s=0,u=void 0){let d=he(Da(Gn(w,{year:n,month:e,day:t,hour:o,minute:r,second:i,millisecond:a,microsecond:c,nanosecond:s}))),l=Bt(u);tu(this,On(d,l))}static from(n,e=void 0){return bn($e(n,e))}static compare(n,e){let t=$e(n),o=$e(e);return Yr(t,o)}get calendarId(){return yn(k(this).calendar)}with(n,e=void 0){return bn(ws(k(this),Ge(n),e))}withCalendar(n){let e=k(this);return bn(On(e,Mo(n)))}withPlainTime(n=void 0){let e=k(this);return bn(Ct(e,bi(n),e.calendar))}add(n,e=void 0){let t=k(this);return bn(On(vt(t.calendar,t,x(n),I(e)),t.calendar))}subtract(n,e=void 0){let t=k(this);return bn(On(vt(t.calendar,t,an(x(n)),I(e)),t.calendar))}until(n,e=void 0){let t=k(this),o=$e(n);return S(gi(0,t,o,e))}since(n,e=void 0){let t=k(this),o=$e(n);return S(gi(1,t,o,e))}round(n){let e=k(this),[t,o,r]=Tt(n);return bn(On(Nr(e,t,o,r),e.calendar))}equals(n){return sc(k(this),$e(n))}toZonedDateTime(n,e=void 0){return V(cs(k(this),H(fn(n)),yc(e)))}toPlainDate(){let n=k(this);return Cn(Z(n,n.calendar))}toPlainTime(){return Kn(pe(k(this)))}toLocaleString(n=void 0,e={}){let t=k(this),o=new Fn(n,xe(vs(e)));return Ue(o,t),o.format(la(t))}toString(n=void 0){return $r(k(this),n)}toJSON(){return $r(k(this))}valueOf(){return Ln()}},k,go,Do,ut);function bn(n){return tu(Object.create(eu.prototype),n)}function k(n){return De(n)||jn()}function De(n){return nu.get(n)}function $e(n,e){if(_(n)){let o=De(n);if(o)return I(e),o;let r=_e(n);if(r)return I(e),On(P(r,gn),r.calendar);let i=Zn(n);if(i)return I(e),ti(i);let a=Rt(n);return Pc(a,n,e)}let t=Uc(n,Qn);return I(e),t}function tu(n,e){return nu.set(n,e),Wn(n),n}var ou=new WeakMap,ru=An(di,class{constructor(n,e,t,o=void 0){let r=Q(Pe(Gn(w,{year:n,month:e,day:t}))),i=Bt(o);iu(this,Z(r,i))}static from(n,e=void 0){return Cn(qe(n,e))}static compare(n,e){return Te(qe(n),qe(e))}get calendarId(){return yn(U(this).calendar)}with(n,e=void 0){return Cn(Ss(U(this),Ge(n),e))}withCalendar(n){let e=U(this);return Cn(Z(e,Mo(n)))}add(n,e=void 0){let t=U(this);return Cn(Z(xn(t.calendar,t,x(n),I(e)),t.calendar))}subtract(n,e=void 0){let t=U(this);return Cn(Z(xn(t.calendar,t,an(x(n)),I(e)),t.calendar))}until(n,e=void 0){let t=U(this),o=qe(n);return S(Di(0,t,o,e))}since(n,e=void 0){let t=U(this),o=qe(n);return S(Di(1,t,o,e))}equals(n){return uc(U(this),qe(n))}toZonedDateTime(n){let e=_(n)?{timeZone:n.timeZone,plainTime:n.plainTime}:{timeZone:n},t=U(this),o=fn(e.timeZone),r=e.plainTime,i=r!==void 0?Xn(r):void 0;return V(ss(t,H(o),i))}toPlainDateTime(n=void 0){let e=U(this);return bn(Ct(e,bi(n),e.calendar))}toPlainYearMonth(){let n=U(this);return wt(ms(n.calendar,this))}toPlainMonthDay(){let n=U(this);return Ni(fs(n.calendar,this))}toLocaleString(n=void 0,e={}){let t=U(this),o=new Fn(n,xe(Ms(e)));return Ue(o,t),o.format(lt(t))}toString(n=void 0){return qr(U(this),n)}toJSON(){return qr(U(this))}valueOf(){return Ln()}},U,go,Do);function Cn(n){return iu(Object.create(ru.prototype),n)}function U(n){return _e(n)||jn()}function _e(n){return ou.get(n)}function qe(n,e){if(_(n)){let o=_e(n);if(o)return I(e),o;let r=De(n);if(r)return I(e),Z(r,r.calendar);let i=Zn(n);if(i)return I(e),oi(i);let a=Rt(n);return Ec(a,n,e)}let t=Ac(n,Qn);return I(e),t}function iu(n,e){return ou.set(n,e),Wn(n),n}function Rt(n){let e=au(n);return e===void 0?X:e}function au(n){let{calendar:e}=n;if(e!==void 0)return Mo(e)}function Mo(n){if(_(n)){let e=_e(n)||De(n)||Zn(n)||Io(n)||vo(n);return e||M(qi(n)),e.calendar}return(e=>Qn($c(q(e))))(n)}var cu=new WeakMap,su=An(pi,class{constructor(n=0,e=0,t=0,o=0,r=0,i=0,a=0,c=0,s=0,u=0){let d=Hn(Gn(yt,{years:n,months:e,weeks:t,days:o,hours:r,minutes:i,seconds:a,milliseconds:c,microseconds:s,nanoseconds:u}));uu(this,Dn(d))}static from(n){return S(x(n))}static compare(n,e,t=void 0){return ic(Mi,x(n),x(e),t)}get sign(){return nn(this).sign}get blank(){return!nn(this).sign}with(n){return S(os(nn(this),n))}negated(){return S(Rr(nn(this)))}abs(){return S(ec(nn(this)))}add(n){return S(Br(0,nn(this),x(n)))}subtract(n){return S(Br(1,nn(this),x(n)))}round(n){return S(nc(Mi,nn(this),n))}total(n){return rs(Mi,nn(this),n)}toLocaleString(n=void 0,e){let t=nn(this);return Intl.DurationFormat?new Intl.DurationFormat(n,e).format(t):ho(t,e)}toString(n=void 0){return ho(nn(this),n)}toJSON(){return ho(nn(this))}valueOf(){return Ln()}},nn,ur);function S(n){return uu(Object.create(su.prototype),n)}function nn(n){return Ci(n)||jn()}function Ci(n){return cu.get(n)}function x(n){return _(n)?Ci(n)||Rc(n):zc(n)}function Mi(n){if(n!==void 0){if(_(n)){let e=Zn(n);if(e)return e;let t=_e(n);if(t)return t;let o=De(n);if(o)return Z(o,o.calendar);let r=Rt(n);return Cc(fn,r,n)}return kc(n,Qn)}}function uu(n,e){return cu.set(n,e),Wn(n),n}var zd=Object.defineProperties({},{...ot("Temporal.Now"),...qt({timeZoneId(){return Ae()},instant(){return zn(on(To()))},zonedDateTimeISO(n=Ae()){let e=H(fn(n));return V(rn(To(),e))},plainDateTimeISO(n=Ae()){let e=yo(H(fn(n)));return bn(On(e))},plainDateISO(n=Ae()){let e=yo(H(fn(n)));return Cn(Z(e))},plainTimeISO(n=Ae()){let e=yo(H(fn(n)));return Kn(pe(e))}})}),du=Object.defineProperties({},{...ot("Temporal"),...qt({PlainYearMonth:Vs,PlainMonthDay:Gs,PlainDate:ru,PlainTime:Ks,PlainDateTime:eu,ZonedDateTime:As,Instant:Ls,Duration:su,Now:zd})});var fu=No||du;var wf=No?Date.prototype.toTemporalInstant:zs;globalThis.Temporal=fu;})();\n';

// src/core/sandbox/machine.ts
var ENTRIES = [
  "surround",
  "load",
  "loadModule",
  "loadService",
  "answer",
  "run",
  "resume",
  "drop",
  "lost"
];
var MachineDied = class extends Error {
};
var OutOfRoom = class extends Error {
};

// src/core/sandbox/snapshot.ts
var PAGE = 4096;
function regionsOf(memory) {
  const words2 = new Int32Array(memory.buffer);
  const perPage = PAGE / 4;
  const isZero = (page) => {
    for (let i = page * perPage; i < (page + 1) * perPage; i++) if (words2[i] !== 0) return false;
    return true;
  };
  const last = Math.ceil(endOfUse(memory) / PAGE);
  let best = { from: 0, to: 0 };
  let start = -1;
  for (let page = 0; page <= last; page++) {
    if (page < last && isZero(page)) {
      if (start < 0) start = page;
    } else if (start >= 0) {
      if (page - start > best.to - best.from) best = { from: start, to: page };
      start = -1;
    }
  }
  return { dataEnd: best.from * PAGE, heapStart: best.to * PAGE };
}
function endOfUse(memory) {
  const words2 = new BigInt64Array(memory.buffer);
  let end = words2.length;
  while (end > 0 && words2[end - 1] === 0n) end--;
  return end * words2.BYTES_PER_ELEMENT;
}
var Snapshot = class _Snapshot {
  constructor(memory, regions, data, heap) {
    this.memory = memory;
    this.regions = regions;
    this.data = data;
    this.heap = heap;
  }
  memory;
  regions;
  data;
  heap;
  /** Takes the snapshot. No call into the machine may be going on. */
  static of(memory, regions) {
    const all = new Uint8Array(memory.buffer);
    return new _Snapshot(
      memory,
      regions,
      all.slice(0, regions.dataEnd),
      all.slice(regions.heapStart, endOfUse(memory))
    );
  }
  restore() {
    const all = new Uint8Array(this.memory.buffer);
    all.set(this.data, 0);
    all.set(this.heap, this.regions.heapStart);
  }
  get bytes() {
    return this.data.length + this.heap.length;
  }
};

// src/core/sandbox/quickjs.ts
var LIMITS = { polls: RUN_POLLS };
var RUN_SCRIPTS = /* @__PURE__ */ new Set([
  "load",
  "loadModule",
  "loadService",
  "answer",
  "run",
  "resume"
]);
var PAGE2 = 64 * 1024;
var FIRST_BYTES = 16 * 1024 * 1024;
function startModule(bytes = MACHINE_BYTES) {
  const wasmMemory = new WebAssembly.Memory({
    initial: FIRST_BYTES / PAGE2,
    maximum: Math.ceil((FIRST_BYTES + bytes) / PAGE2)
  });
  return newQuickJSWASMModuleFromVariant(newVariant(variant, { wasmMemory }));
}
var FUNCTIONS = ["putText", "putLoose", "given", "cut", "fits"];
function pointersOf(names, pointerOf) {
  return Object.fromEntries(names.map((name2) => [name2, pointerOf(name2)]));
}
var QuickJS = class {
  #context;
  #below;
  #pointer;
  #at;
  #undefined;
  #entries;
  #functions;
  #memory;
  #regions;
  #mostPolls;
  /** Called again and again while the machine is at work. */
  #alive;
  /** How often it may ask before what goes on is stopped. */
  #allowed = Infinity;
  #cells;
  #floats;
  #ask = () => void 0;
  #interrupted = false;
  /** How often the machine asked within this run whether to go on: once in ten thousand calls and branches. */
  #polls = 0;
  /** As it was booted. */
  booted;
  /**
   * Boots a machine: 5–20 ms once its code is warm, and most of 200 ms before. `wasm` has to be a module that nothing
   * else uses. With an image (`image.ts`) of a machine booted before, the guest is not evaluated again.
   */
  constructor(wasm, {
    temporal: temporal2,
    limits,
    alive,
    image
  }) {
    this.#alive = alive;
    this.#mostPolls = limits.polls;
    this.#memory = wasm.getWasmMemory();
    const runtime = wasm.newRuntime();
    runtime.setMaxStackSize(MACHINE_STACK_BYTES);
    runtime.setInterruptHandler(() => {
      alive();
      if (++this.#polls <= this.#allowed) return false;
      this.#interrupted = true;
      return true;
    });
    const context = runtime.newContext();
    this.#context = context;
    const below = context;
    this.#below = below;
    const { ffi, module } = below;
    this.#pointer = below.ctx.value;
    this.#undefined = context.undefined.value;
    this.#at = module._malloc(SHARED_BYTES);
    module.HEAPU8.fill(0, this.#at, this.#at + SHARED_BYTES);
    this.#cells = new Int32Array(module.HEAPU8.buffer, this.#at, SHARED_BYTES / 4);
    this.#floats = new Float64Array(module.HEAPU8.buffer, this.#at, SHARED_BYTES / 8);
    context.setProp(
      context.global,
      "__buffer",
      below.memory.heapValueHandle(ffi.QTS_NewArrayBuffer(this.#pointer, this.#at, SHARED_BYTES))
    );
    context.setProp(
      context.global,
      "__host",
      context.newFunction("host", () => {
        throw new Error("the raw callback has not been put in place");
      })
    );
    const answer = () => {
      this.#ask();
      return 0;
    };
    module.callbacks = { ...module.callbacks, callFunction: answer };
    this.#regions = image?.regions ?? regionsOf(this.#memory);
    if (image === null) {
      this.#evaluate(guest);
      if (temporal2) this.#evaluate(temporal);
      const entries = context.getProp(context.global, "__entries");
      const pointerOf = (name2) => context.getProp(entries, name2).value;
      this.#entries = pointersOf(ENTRIES, pointerOf);
      this.#functions = pointersOf(FUNCTIONS, pointerOf);
      this.#evaluate("__close()");
      this.booted = this.snapshot();
    } else {
      this.booted = new Snapshot(this.#memory, image.regions, image.data, image.heap);
      this.booted.restore();
      this.#entries = pointersOf(ENTRIES, (name2) => image.entries[name2]);
      this.#functions = pointersOf(FUNCTIONS, (name2) => image.functions[name2]);
    }
  }
  #evaluate(source) {
    const result = this.#context.evalCode(source, "tavro.js");
    if (result.error)
      throw new Error(
        `the machine does not start: ${JSON.stringify(this.#context.dump(result.error))}`
      );
    result.value.dispose();
  }
  get cells() {
    if (this.#cells.length === 0) this.#view();
    return this.#cells;
  }
  get floats() {
    if (this.#floats.length === 0) this.#view();
    return this.#floats;
  }
  /** The machine's memory has grown, which detaches all views of it. */
  #view() {
    const { buffer } = this.#below.module.HEAPU8;
    this.#cells = new Int32Array(buffer, this.#at, SHARED_BYTES / 4);
    this.#floats = new Float64Array(buffer, this.#at, SHARED_BYTES / 8);
  }
  get wasInterrupted() {
    return this.#interrupted;
  }
  answerWith(ask) {
    this.#ask = ask;
  }
  call(entry) {
    const { ffi } = this.#below;
    const context = this.#pointer;
    const outer = this.#allowed;
    if (outer === Infinity && RUN_SCRIPTS.has(entry)) {
      this.#allowed = this.#mostPolls;
      this.#interrupted = false;
      this.#polls = 0;
      this.#alive();
    }
    try {
      const result = ffi.QTS_Call(context, this.#entries[entry], this.#undefined, 0, 0);
      const error2 = ffi.QTS_ResolveException(context, result);
      ffi.QTS_FreeValuePointer(context, result);
      if (error2 === 0) return true;
      ffi.QTS_FreeValuePointer(context, error2);
      return false;
    } catch (caught) {
      throw new MachineDied(String(caught));
    } finally {
      this.#allowed = outer;
    }
  }
  #callFunction(name2, args) {
    const context = this.#context;
    const fn = this.#below.memory.heapValueHandle(this.#functions[name2]);
    try {
      const handles = args.map(
        (arg) => typeof arg === "string" ? context.newString(arg) : context.newNumber(arg)
      );
      const result = context.callFunction(fn, context.undefined, ...handles);
      for (const handle of handles) handle.dispose();
      if (result.error) {
        result.error.dispose();
        return null;
      }
      const text3 = context.typeof(result.value) === "string" ? context.getString(result.value) : "";
      result.value.dispose();
      return text3;
    } catch (caught) {
      throw new MachineDied(String(caught));
    }
  }
  putText(text3) {
    if (this.#callFunction("putText", [text3]) === null) throw new OutOfRoom();
  }
  putLoose(place, text3) {
    if (this.#callFunction("putLoose", [place, text3]) === null) throw new OutOfRoom();
  }
  given() {
    const text3 = this.#callFunction("given", []);
    if (text3 === null) throw new OutOfRoom();
    return text3;
  }
  cut(texts, kept2) {
    if (this.#callFunction("cut", [texts, kept2]) === null)
      throw new MachineDied("the lists of texts cannot be cut back");
  }
  fits(pattern, text3) {
    const [outer, before] = [this.#allowed, this.#polls];
    this.#allowed = PATTERN_POLLS;
    this.#polls = 0;
    try {
      const answer = this.#callFunction("fits", [pattern, text3]);
      return answer === null ? null : answer === "yes";
    } finally {
      [this.#allowed, this.#polls] = [outer, before];
      this.#interrupted = false;
    }
  }
  /** The machine as it is now. No call into it may be going on. */
  snapshot() {
    return Snapshot.of(this.#memory, this.#regions);
  }
  /** What another machine of the same WebAssembly, guest and order of making can start from. */
  get image() {
    return {
      regions: this.#regions,
      entries: this.#entries,
      functions: this.#functions,
      data: this.booted.data,
      heap: this.booted.heap
    };
  }
  /** Bytes that scripts and the guest hold. */
  get bytesUsed() {
    const handle = this.#context.runtime.computeMemoryUsage();
    const usage = this.#context.dump(handle);
    handle.dispose();
    return usage.memory_used_size;
  }
};

// src/core/session/checking.ts
function wrongWith(state, part) {
  if (!part.onScreen) return null;
  const kept2 = state.orphans.has(part) || state.strays.has(part) ? null : faultOf(part.value, part.field, part.now("required") === true, state.fits);
  return kept2?.says ?? part.now("problem");
}
function check(state, page) {
  const found2 = [];
  const look = (part) => {
    const says = wrongWith(state, part);
    if (says === null) return;
    if (part.now("problem") === null) setFault(state, part, says, null);
    found2.push({ part: part.address, says });
  };
  for (const part of state.parts.fields) {
    if (page !== null && part.parent.parent !== page) continue;
    look(part);
    if (part.rows !== null && part.onScreen)
      checkRows(state, part, look, (row2, says) => found2.push({ part: row2.address, says }));
  }
  return found2;
}
function checkRows(state, part, look, ofRow) {
  const rows3 = part.rows;
  for (const row2 of rows3.list) {
    if (!row2.part.onScreen) continue;
    const problem = row2.part.now("problem");
    if (problem !== null) ofRow(row2.part, problem);
    for (const [name2, { field: field3, bases }] of rows3.columns) {
      const cell = row2.cells.get(name2);
      if (cell !== void 0) look(cell);
      else if (bases.shown === true && faultOf(row2.values[name2], field3, bases.required === true, state.fits) !== null)
        look(rows3.cell(row2, name2));
    }
  }
}
function setFault(state, part, says, readsOf) {
  state.faults.set(part, { says, readsOf });
  state.outdated.parts.add(part);
}
function dropMended(state) {
  for (const [part, { readsOf }] of state.faults) {
    if (readsOf === null && state.outdated.parts.has(part) && wrongWith(state, part) === null)
      state.faults.delete(part);
  }
}

// src/core/session/submitted-values.ts
function valuesOf2(state) {
  return Object.fromEntries(state.parts.fields.map((part) => [part.name, part.value]));
}
function submittedValues(state) {
  const values = {};
  const without = [];
  for (const part of state.parts.fields) {
    const omitted = part.field.whenHidden === "omit" && !part.onScreen;
    if (omitted) without.push(part.name);
    values[part.name] = omitted ? emptyOf(part.field) : state.strays.get(part) ?? (part.rows === null ? part.value : rowsOut(part, without));
  }
  return { values, without };
}
function rowsOut(part, without) {
  const rows3 = part.rows;
  const omitting = [...rows3.columns].filter(([, { field: field3 }]) => field3.whenHidden === "omit");
  if (omitting.length === 0) return rows3.value;
  return rows3.list.map((row2) => {
    const left = omitting.filter(([name2]) => !rows3.cell(row2, name2).onScreen);
    for (const [name2] of left) without.push(rows3.cell(row2, name2).address);
    return {
      ...row2.values,
      ...Object.fromEntries(left.map(([name2, { field: field3 }]) => [name2, emptyOf(field3)]))
    };
  });
}

// src/core/session/tape-writer.ts
var TapeWriter = class {
  constructor(on, journal, observer = null) {
    this.on = on;
    this.journal = journal;
    this.observer = observer;
  }
  on;
  journal;
  observer;
  #entries = [];
  #next = 0;
  /** Adds an entry and gives it back, so that its end can be filled in; null when nothing is taped. */
  add(cause, body) {
    if (!this.on) return null;
    const entry = { n: this.#next++, cause, ...body };
    this.#entries.push(entry);
    if (entry.type === "log" || entry.type === "effect" && entry.by !== "person")
      this.journal.undoable(() => entry.struck = true);
    this.observer?.taped(entry);
    return entry;
  }
  /** Adds an effect on an aspect; gives its number, or that of its cause when nothing is taped. */
  effect(cause, aspect2, from, to, more) {
    if (!this.on) return cause;
    const { part, name: name2 } = aspect2;
    return this.add(cause, {
      type: "effect",
      part: part.name,
      sort: part.sort,
      aspect: name2,
      from: forTape(from),
      to: forTape(to),
      ...more
    }).n;
  }
  /** The entries since the last call. */
  take() {
    const entries = this.#entries;
    if (entries.length > 0) this.#entries = [];
    return entries;
  }
};
var MOST_TAPED = 20;
function forTape(value) {
  if (!Array.isArray(value)) return value;
  const isRows = value.length > MOST_TAPED && typeof value[0] === "object";
  if (isRows && !("key" in value[0])) return inWords(value);
  return value.map(
    (item) => typeof item === "object" && item !== null && !Array.isArray(item) && "key" in item && "label" in item ? item.key : item
  );
}

// src/core/session/aspects.ts
var NONE = [];
var Aspect = class {
  constructor(part, name2, base, derive = null) {
    this.part = part;
    this.name = name2;
    this.base = base;
    this.derive = derive;
    this.sticks = name2 === "value";
  }
  part;
  name;
  base;
  derive;
  /** The last word of a handler. Boxed, since null is a word too, and so that a superseded run knows its own. */
  handlerClaim = null;
  /** In the order of the rules, so that the last one wins. Replaced, never changed in place. */
  ruleClaims = NONE;
  /** Rules whose last run read this; null while none has. */
  readers = null;
  /** The run that last changed it, for printing cycles. Null for persons and the form. */
  changedBy = null;
  /** Values are one slot: rules' words of them are kept only to tell who wins. */
  sticks;
  readBy(rule) {
    (this.readers ??= /* @__PURE__ */ new Set()).add(rule);
  }
  /** What holds now. */
  get current() {
    if (this.derive !== null) return this.derive();
    if (this.sticks) return this.base;
    const { ruleClaims } = this;
    if (ruleClaims.length > 0) return ruleClaims[ruleClaims.length - 1].value;
    return this.handlerClaim === null ? this.base : this.handlerClaim.value;
  }
  /** What stands below what a rule says of it: base, handlers and earlier rules. */
  below(rule) {
    if (this.derive !== null) return this.derive();
    if (this.sticks) return this.base;
    const { ruleClaims } = this;
    for (let i = ruleClaims.length - 1; i >= 0; i--) {
      if (ruleClaims[i].rule.order < rule.order) return ruleClaims[i].value;
    }
    return this.handlerClaim === null ? this.base : this.handlerClaim.value;
  }
  /** The word list with this rule's word put in, replaced, or (null) taken out. */
  withClaim(rule, word) {
    const others = this.ruleClaims.filter((w) => w.rule !== rule);
    if (word === null) return others.length === 0 ? NONE : others;
    others.push({ rule, value: word.value, line: word.line });
    return others.length === 1 ? others : others.sort((a, b) => a.rule.order - b.rule.order);
  }
  /** The winning word of a rule; null while no rule says anything. */
  get winner() {
    return this.ruleClaims[this.ruleClaims.length - 1] ?? null;
  }
  /** Forgets all that was said. */
  reset(base) {
    this.handlerClaim = null;
    this.ruleClaims = NONE;
    this.readers?.clear();
    this.changedBy = null;
    if (this.derive === null) this.base = base;
  }
};

// src/core/session/parts.ts
var NOTHING_TOLD = Object.freeze({});
var Part = class {
  constructor(sort, name2, definition, parent, nesting, bases, row2 = null) {
    this.sort = sort;
    this.name = name2;
    this.definition = definition;
    this.parent = parent;
    this.nesting = nesting;
    this.bases = bases;
    this.row = row2;
    if (row2 === null && parent !== null) (parent.children ??= []).push(this);
  }
  sort;
  name;
  definition;
  parent;
  nesting;
  bases;
  row;
  /** Without rows and cells, which are found through their field. */
  children = null;
  /** The rows of a rows field. */
  rows = null;
  #lookedAt = -1;
  #onScreen = true;
  #editable = true;
  /** Those that somebody has touched. */
  aspects = {};
  /** The state last reported to the outside, so that only differences are reported. */
  told = NOTHING_TOLD;
  get field() {
    return this.definition;
  }
  /** An aspect that this sort of part has. */
  aspect(name2) {
    return this.aspects[name2] ??= this.#make(name2);
  }
  /** The value of a field. */
  get value() {
    return this.aspect("value").current;
  }
  #make(name2) {
    const { row: row2, rows: rows3 } = this;
    if (rows3 !== null && name2 === "value") return new Aspect(this, name2, null, () => rows3.value);
    if (row2 !== null && name2 === "value")
      return new Aspect(this, name2, row2.values[this.field.name] ?? null);
    if (row2 !== null && name2 === "values") return new Aspect(this, name2, null, () => row2.values);
    return new Aspect(this, name2, this.bases[name2]);
  }
  has(name2) {
    return name2 in this.bases;
  }
  get onScreen() {
    if (this.#lookedAt !== this.nesting.version) this.#look();
    return this.#onScreen;
  }
  get editable() {
    if (this.#lookedAt !== this.nesting.version) this.#look();
    return this.#editable;
  }
  /** What was said of an aspect, or its base while nobody touched it. */
  now(name2) {
    const aspect2 = this.aspects[name2];
    return aspect2 === void 0 ? this.bases[name2] : aspect2.current;
  }
  /** Asked many times a step and changed seldom, so both are kept until something is shown, hidden or locked. */
  #look() {
    const { parent } = this;
    this.#onScreen = this.now("shown") !== false && (parent === null || parent.onScreen);
    this.#editable = this.now("locked") !== true && !this.scriptOnly && (parent === null || parent.editable);
    this.#lookedAt = this.nesting.version;
  }
  get scriptOnly() {
    return this.sort === "field" && this.field.scriptOnly === true;
  }
  /** How people know it. */
  get label() {
    const { definition, row: row2 } = this;
    if (this.sort === "row") return `Row ${row2.index + 1} of ${this.parent.label}`;
    const own2 = this.aspects.label?.current ?? ("label" in definition ? definition.label : definition.title);
    return row2 === null ? own2 : `${own2} in row ${row2.index + 1} of ${row2.rows.field.label}`;
  }
  /** How steps and scenarios name it now: rows by their place, from 0. */
  get address() {
    const { row: row2 } = this;
    if (row2 === null) return this.name;
    const place = `${row2.rows.field.name}[${row2.index}]`;
    return this.sort === "row" ? place : `${place}.${this.field.name}`;
  }
  /** Forgets all that was said, as if the form had just been made. */
  reset() {
    for (const aspect2 of Object.values(this.aspects))
      aspect2.reset(this.bases[aspect2.name]);
    this.rows?.clear();
  }
};
var BESIDES = {
  form: () => ({ changed: false }),
  field: (definition) => ({ value: emptyOf(definition) })
};
var ROW_BASES = deepFreeze({ ...basesBy("row", {}), values: null });
var known = /* @__PURE__ */ new WeakMap();
function basesOf(sort, definition) {
  const found2 = known.get(definition);
  if (found2 !== void 0) return found2;
  const bases = deepFreeze({
    ...basesBy(sort, definition),
    ...BESIDES[sort]?.(definition)
  });
  known.set(definition, bases);
  return bases;
}

// src/core/session/telling.ts
function tell2(state) {
  const changes = {};
  const rows3 = {};
  const rowsOf2 = (field3) => rows3[field3.name] ??= { rows: {} };
  for (const part of state.outdated.parts) {
    if (part.sort === "form") continue;
    const { row: row2 } = part;
    if (row2 === null) {
      const difference = differenceOf(state, part);
      if (difference !== null) changes[part.name] = difference;
      if (part.rows !== null) tellOrder(part.rows, rowsOf2);
    } else if (!row2.removed) tellRow(state, part, row2, rowsOf2);
  }
  state.outdated.parts.clear();
  return { changes, rows: rows3 };
}
function teller(told) {
  let difference = null;
  return {
    tell(name2, now) {
      if (told[name2] === now) return;
      if (typeof now === "object" && now !== null && equal(now, told[name2])) return;
      told[name2] = now;
      (difference ??= {})[name2] = now;
    },
    difference: () => difference
  };
}
function toldOf(part) {
  if (part.told === NOTHING_TOLD) part.told = {};
  return part.told;
}
var FOLLOWING = {
  onScreen: (_, part) => part.onScreen,
  editable: (_, part) => part.editable,
  fault: (state, part) => part.onScreen ? state.faults.get(part)?.says ?? null : null,
  orphan: (state, part) => state.orphans.has(part),
  stray: (state, part) => state.strays.get(part) ?? null
};
function nowOf(state, part, name2) {
  if (Object.hasOwn(FOLLOWING, name2)) return FOLLOWING[name2](state, part);
  if (name2 === "value") return part.rows === null ? part.value : void 0;
  return name2 === "problem" && !part.onScreen ? null : part.now(name2);
}
var NESTED = ["shown", "onScreen", "locked", "editable"];
function toldOfSort(sort) {
  const said = saidOf(sort).filter(isToldName);
  return [
    // A track is never locked.
    ...NESTED.filter((name2) => sort !== "track" || name2 === "shown" || name2 === "onScreen"),
    ...said.filter((name2) => !NESTED.includes(name2)),
    ...sort === "field" ? ["fault", "orphan", "stray"] : []
  ];
}
var TOLD = Object.fromEntries(
  ["page", "section", "track", "button", "field"].map((sort) => [
    sort,
    toldOfSort(sort)
  ])
);
function differenceOf(state, part) {
  const { sort } = part;
  const told = toldOf(part);
  const { tell: tell3, difference } = teller(told);
  if (told.sort === void 0) tell3("sort", sort);
  for (const name2 of TOLD[sort]) tell3(name2, nowOf(state, part, name2));
  return difference();
}
function partNow(state, part) {
  const { sort } = part;
  const now = { sort };
  for (const name2 of TOLD[sort]) {
    const value = nowOf(state, part, name2);
    if (value !== void 0) now[name2] = value;
  }
  return now;
}
function tellOrder(rows3, rowsOf2) {
  if (rows3.toldOrder === rows3.list) return;
  rows3.toldOrder = rows3.list;
  const change = rowsOf2(rows3.field);
  change.order = rows3.list.map((row2) => row2.id);
  if (rows3.anew) change.anew = true;
  rows3.anew = false;
}
function tellRow(state, part, row2, rowsOf2) {
  const change = () => rowsOf2(row2.rows.field).rows[row2.id] ??= {};
  const { told } = row2;
  if (told.values !== row2.values) {
    const before = told.values;
    told.values = row2.values;
    change().values = before === null ? { ...row2.values } : Object.fromEntries(
      Object.entries(row2.values).filter(([name2, value]) => !equal(value, before[name2]))
    );
  }
  if (part.sort === "row") {
    const { tell: tell3, difference } = teller(told.state);
    tell3("shown", part.now("shown"));
    tell3("locked", part.now("locked"));
    for (const name2 of ["warning", "problem"])
      if (part.now(name2) !== null || name2 in told.state) tell3(name2, part.now(name2));
    Object.assign(change(), difference() ?? {});
    return;
  }
  const cell = cellDifference(state, part, row2);
  if (cell !== null) (change().cells ??= {})[part.field.name] = cell;
}
var OF_CELL2 = TOLD.field.filter(
  (name2) => !["value", "onScreen", "editable", "stray"].includes(name2)
);
function cellAspect(state, part, name2) {
  if (name2 === "fault") return state.faults.get(part)?.says ?? null;
  return name2 === "orphan" ? state.orphans.has(part) : part.now(name2);
}
function cellBase(part, row2, name2) {
  if (name2 === "fault") return null;
  return name2 === "orphan" ? false : row2.rows.columns.get(part.field.name).bases[name2];
}
function cellNow(state, part, row2) {
  const differs = {};
  for (const name2 of OF_CELL2) {
    const now = cellAspect(state, part, name2);
    if (!equal(now, cellBase(part, row2, name2))) differs[name2] = now;
  }
  return differs;
}
function cellDifference(state, part, row2) {
  let difference = null;
  for (const name2 of OF_CELL2) {
    const now = cellAspect(state, part, name2);
    const told = part.told[name2];
    if (told === now || equal(told, now)) continue;
    if (told === void 0 && equal(now, cellBase(part, row2, name2))) continue;
    toldOf(part)[name2] = now;
    (difference ??= {})[name2] = now;
  }
  return difference;
}

// src/core/session/looking.ts
function lookAt(state, page, clock) {
  const look = {
    parts: {},
    rows: {},
    page,
    clock,
    layers: {},
    initial: {},
    outgoing: submittedValues(state)
  };
  for (const part of state.parts.byName.values()) {
    if (part.sort !== "form") look.parts[part.name] = partNow(state, part);
    addLayers(look, part, part.name);
    if (part.rows === null) continue;
    const { list: list2 } = part.rows;
    look.rows[part.name] = {
      order: list2.map(({ id }) => id),
      byId: Object.fromEntries(list2.map((row2) => [row2.id, rowNow(state, row2)]))
    };
    for (const row2 of list2) {
      addLayers(look, row2.part, row2.part.name);
      for (const cell of row2.cells.values()) addLayers(look, cell, cell.name);
    }
  }
  for (const part of state.parts.fields) {
    const initial = state.initialOf(part);
    if (!equal(initial, part.value)) look.initial[part.name] = initial;
  }
  return look;
}
function rowNow(state, row2) {
  const { part } = row2;
  const said = (name2) => part.now(name2) === null ? {} : { [name2]: part.now(name2) };
  const cells2 = {};
  for (const [name2, cell] of row2.cells) {
    const differs = cellNow(state, cell, row2);
    if (Object.keys(differs).length > 0) cells2[name2] = differs;
  }
  return {
    shown: part.now("shown"),
    locked: part.now("locked"),
    ...said("warning"),
    ...said("problem"),
    values: { ...row2.values },
    cells: cells2
  };
}
function addLayers(look, part, name2) {
  for (const aspect2 of Object.values(part.aspects)) {
    if (aspect2.derive !== null) continue;
    const { handlerClaim, ruleClaims } = aspect2;
    if (handlerClaim === null && ruleClaims.length === 0) continue;
    (look.layers[name2] ??= {})[aspect2.name] = {
      base: forTape(aspect2.base),
      handler: handlerClaim === null ? void 0 : forTape(handlerClaim.value),
      rules: ruleClaims.map(({ rule, value, line: line2 }) => ({
        behaviour: rule.behaviour.name,
        title: rule.title,
        line: line2,
        value: forTape(value)
      }))
    };
  }
}

// src/core/session/clock.ts
var Clock = class {
  constructor(now, zone, seed) {
    this.now = now;
    this.zone = zone;
    this.#chance = seed >>> 0;
  }
  now;
  zone;
  #chance;
  random() {
    this.#chance = nextState(this.#chance);
    return numberAt(this.#chance);
  }
};

// src/core/session/corrections.ts
var Corrections = class {
  constructor(state, progress, writing, defaults) {
    this.state = state;
    this.progress = progress;
    this.writing = writing;
    this.defaults = defaults;
    this.#clears = state.parts.fields.some(
      ({ field: field3 }) => field3.whenHidden === "clear" || field3.kind === "rows" && field3.fields.some((cell) => cell.whenHidden === "clear")
    );
  }
  state;
  progress;
  writing;
  defaults;
  /** Whether fields were on screen at the last rest. */
  #wasOnScreen = /* @__PURE__ */ new Map();
  /** No field of the form is ever cleared, so nothing has to be noted. */
  #clears;
  /** Corrects what has to be; true when there was something, so that settling goes on. */
  correct(cause) {
    let corrected = false;
    for (const part of Array.from(this.state.outdated.parts)) {
      if (part.sort !== "field" || part.row?.removed === true) continue;
      if (holdsKeys(part.field)) corrected = this.#dropUnoffered(part, cause) || corrected;
      if (this.#clears) corrected = this.#clearHidden(part, cause) || corrected;
    }
    return corrected;
  }
  #dropUnoffered(part, cause) {
    const { value } = part;
    const gone = this.state.offers.notOffered(part, value);
    if (gone.length === 0) {
      if (this.state.orphans.delete(part)) this.state.outdated.parts.add(part);
      return false;
    }
    if (this.state.orphans.has(part)) return false;
    if (this.progress.opening && equal(value, this.state.initialOf(part))) {
      this.state.orphans.add(part);
      return false;
    }
    this.writing.enter(
      part,
      Array.isArray(value) ? value.filter((key) => !gone.includes(key)) : null,
      "form",
      cause
    );
    return true;
  }
  #clearHidden(part, cause) {
    const { field: field3 } = part;
    if (field3.whenHidden !== "clear" || this.progress.opening) return false;
    const on = part.onScreen;
    const was = this.#wasOnScreen.get(part) ?? on;
    if (on === was) return false;
    this.#wasOnScreen.set(part, on);
    this.progress.journal.undoable(() => this.#wasOnScreen.set(part, was));
    const aspect2 = part.aspect("value");
    if (!on) {
      if (isEmpty(aspect2.current)) return false;
      this.writing.enter(part, emptyOf(field3), "form", cause);
      return true;
    }
    const fallback = this.defaults.of(part.field);
    const wrote = isEmpty(aspect2.current) && !isEmpty(fallback);
    if (wrote) this.writing.enter(part, fallback, "form", cause);
    for (const { rule } of aspect2.ruleClaims) {
      rule.state = "forced";
      this.state.outdated.rules.add(rule);
    }
    return wrote || aspect2.ruleClaims.length > 0;
  }
  /** All is still: what is on screen now is what the next hiding is judged against. */
  rest() {
    if (!this.#clears) return;
    if (this.progress.opening) for (const part of this.state.parts.fields) this.#note(part);
    else for (const part of this.state.outdated.parts) this.#note(part);
  }
  #note(part) {
    if (part.sort !== "field") return;
    if (part.field.whenHidden === "clear") this.#wasOnScreen.set(part, part.onScreen);
    const { rows: rows3 } = part;
    if (rows3 === null || !this.progress.opening) return;
    for (const [name2, { field: field3 }] of rows3.columns) {
      if (field3.whenHidden === "clear")
        for (const row2 of rows3.list) this.#note(rows3.cell(row2, name2));
    }
  }
  forget() {
    this.#wasOnScreen.clear();
  }
};

// src/core/wire/failures.ts
var FAILURES = [
  "syntax",
  "thrown",
  "type",
  "name",
  "range",
  "fuel",
  "depth",
  "memory",
  "stuck",
  "wrong_value",
  "wrong_use",
  "cycle",
  "async",
  "service",
  "module"
];
var ScriptError = class extends Error {
  constructor(code, says) {
    super(says);
    this.code = code;
  }
  code;
};
var words = {
  fuel: "ran too long without coming to an end. Look for a loop whose condition never becomes false.",
  depth: "called itself too deep. Look for a function that calls itself without an end.",
  memory: "used up the memory a form may have. Look for a list or text that grows in a loop.",
  stuck: "was stopped: it kept the form busy in a single built-in call. This behaviour is out until the script changes.",
  interrupted: "was stopped: it kept the form busy for too long. Look for a built-in function that is called with something very large.",
  type: "used a value in a way it does not allow: most often something empty (null or undefined) was read like an object, or something that is no function was called.",
  name: "uses a name that does not exist.",
  range: "gave a built-in function a number it does not take.",
  syntax: "does not parse as a script.",
  noModule: (name2) => `imports from "${name2}", which the workspace does not have.`,
  moduleFailed: (name2, line2, says) => `needs ${name2}, which failed${line2 === null ? "" : ` in line ${line2}`}: it ${says}`,
  asyncRule: "waits (async), which a rule cannot: a rule says what holds now. Let a handler wait, and the rule read what it brought.",
  asyncService: "waits (async), which the script of a service cannot: what it returns is its answer.",
  notRow: (part) => `${part} is not in the row that this rule runs for. A rule for each row says something of its own row alone.`,
  rowGone: (part) => `${part} is in a row that was removed; it can be read, not written.`,
  noRow: (field3, offered2) => `${field3}.remove() takes a row of ${field3}, not ${inWords(offered2)}.`,
  noCell: (field3, name2, known2) => `${field3} has no column "${name2}". It has ${known2.join(", ")}.`,
  notNumbers: (field3, name2) => `${field3}.sum("${name2}") needs a column of numbers or money.`,
  noService: (name2, near) => `there is no service "${name2}"${near === null ? "." : `. Is it "${near}"?`}`,
  noFunction: (service, name2, known2) => `${service} has no function "${name2}". It has ${known2.join(", ")}.`,
  wrongArguments: (name2, says) => `${name2}() ${says}`,
  serviceFailed: (name2, reason) => `${name2} failed: ${reason}`,
  tooManyRows: (field3, most) => `${field3}.add() cannot add a row: a field has ${most} rows at most.`,
  tooManyCalls: (name2, most) => `${name2}() was called while ${most} calls wait already.`,
  waitedTooLong: (names) => `Still waiting for ${names} after 30 seconds.`,
  noStage: (track, stages, offered2) => `${track}.stage takes one of ${stages.map((s) => JSON.stringify(s)).join(", ")} or null, not ${inWords(offered2)}.`,
  noParentField: (name2, form2) => `parent has no field "${name2}": the form ${form2} has none.`,
  topLevel: (what) => `${what} at the top level of the script, where no form is open yet. Put it into on.load(() => \u2026) or keep("\u2026", () => \u2026).`,
  askingOnly: "would change something. What is asked here reads only.",
  outside: (what) => `${what} after its handler or rule had ended.`,
  readOnly: (part, aspect2) => `${part}.${aspect2} can be read, not written.`,
  noAspect: (part, aspect2, known2) => `${part} has no aspect "${aspect2}". It has ${known2.join(", ")}.`,
  noPart: (sort, name2, near) => `there is no ${sort} "${name2}"${near === null ? "" : `. Is it "${near}"`}${near === null ? "." : "?"}`,
  assignPart: (sort, name2) => `${sort}s.${name2} is the ${sort} itself. ${sort === "field" ? `Write fields.${name2}.value = \u2026` : `Write to one of its aspects, such as ${sort}s.${name2}.shown = \u2026`}`,
  wrongValue: (field3, kind, takes, offered2, help) => `${field3} (${kind}) takes ${takes}, not ${inWords(offered2)}.${help === void 0 ? "" : ` ${help}`}${temporalHelp(offered2)}`,
  wrongAspect: (part, aspect2, takes, offered2) => `${part}.${aspect2} takes ${takes}, not ${inWords(offered2)}.`,
  notInRule: (what) => `${what} cannot be done in a rule: a rule says what holds, a handler does things.`,
  tieInside: (what) => `${what} was called inside a handler. Tie it at the top level of the script, or inside on.load.`,
  stopTooLate: "event.stop() was called after the event was over.",
  submitInSubmit: "form.submit() was called while the form is being submitted.",
  cycle: (limit) => `ran ${limit} times within one step: it kept changing values and did not settle. All that scripts did in this step was taken back.`
};
function temporalHelp(offered2) {
  const tag = typeof offered2 === "object" && offered2 !== null ? Object.prototype.toString.call(offered2) : "";
  return tag.startsWith("[object Temporal.") ? " Use .toString() on it." : "";
}
function cutText(text3) {
  return text3.length <= SAID_CHARACTERS ? text3 : `${text3.slice(0, SAID_CHARACTERS - 1).replace(/[\uD800-\uDBFF]$/, "")}\u2026`;
}

// src/core/session/accepting.ts
function acceptValue(state, part, offered2) {
  const { field: field3 } = part;
  const accepted = accept(offered2, field3, state.offers.surroundings(part));
  if (accepted.ok) return accepted.value;
  throw new ScriptError(
    "wrong_value",
    words.wrongValue(part.name, field3.kind, accepted.takes, offered2, accepted.help)
  );
}
var yesOrNo = ({ offered: offered2, wrong }) => typeof offered2 === "boolean" ? offered2 : wrong("true or false");
var textOrNothing = ({ offered: offered2, wrong }) => offered2 === null || offered2 === "" ? null : typeof offered2 === "string" ? offered2 : wrong("a text or null");
var unread = ({ wrong }) => wrong("nothing: it can be read, not written");
var READERS = {
  value: ({ state, part, offered: offered2 }) => acceptValue(state, part, offered2),
  "yes or no": yesOrNo,
  "text or nothing": textOrNothing,
  text: ({ offered: offered2, wrong }) => typeof offered2 === "string" && offered2 !== "" ? offered2 : wrong("a text"),
  options: ({ state, part, offered: offered2, wrong }) => acceptOptions(state, part.field, offered2, wrong),
  stage: ({ part, offered: offered2 }) => acceptStage(part.definition, offered2),
  message: ({ offered: offered2, wrong }) => readMessage(offered2) ?? wrong("a text and a tone"),
  replacement: (offer2) => readReplacement(offer2.offered) ?? textOrNothing(offer2)
};
function acceptAspect(state, aspect2, offered2) {
  const { part, name: name2 } = aspect2;
  const wrong = (takes) => {
    throw new ScriptError("wrong_value", words.wrongAspect(part.name, name2, takes, offered2));
  };
  const reader = isSaid(name2) ? READERS[entryOf(name2).takes] : unread;
  return reader({ offered: offered2, state, part, wrong });
}
var TONES = ["info", "warning", "error"];
function readMessage(offered2) {
  const { text: text3, tone } = offered2 ?? {};
  return typeof text3 === "string" && TONES.includes(tone) ? { text: text3, tone } : null;
}
function readReplacement(offered2) {
  const { text: text3, final } = offered2 ?? {};
  if (typeof text3 !== "string" || text3 === "" || typeof final !== "boolean") return null;
  return final ? { text: text3, final } : text3;
}
function acceptStage(track, offered2) {
  const keys = track.stages.map(({ key }) => key);
  if (offered2 === null || typeof offered2 === "string" && keys.includes(offered2)) return offered2;
  throw new ScriptError("wrong_value", words.noStage(track.name, keys, offered2));
}
function acceptOptions(state, field3, offered2, wrong) {
  if (!holdsKeys(field3)) return wrong("nothing: only choices and references have options");
  if (!Array.isArray(offered2))
    return wrong("a list of options or rows, or undefined to take it back");
  const known2 = state.offers.optionsOf(field3, null);
  const table = field3.kind === "reference" ? state.offers.table(field3.table) : null;
  const seen2 = /* @__PURE__ */ new Set();
  const options = [];
  for (const item of offered2) {
    const option2 = readOption(
      state,
      item,
      known2,
      table === null ? null : (key) => rowOption(table, key)
    );
    if (option2 === null) return wrong("keys, { key, label } or rows of a table");
    if (table !== null && table.find(option2.key) === null)
      return wrong(`keys of table ${table.table.name}, and ${inWords(option2.key)} is none`);
    if (!seen2.has(option2.key)) options.push(option2);
    seen2.add(option2.key);
  }
  return Object.freeze(options);
}
function rowOption(table, key) {
  const row2 = table.find(key);
  return row2 === null ? null : table.optionOf(row2);
}
function readOption(state, item, known2, byKey) {
  const find = (key2) => byKey === null ? known2.find((option2) => option2.key === key2) ?? null : byKey(key2);
  if (typeof item === "string") return find(item) ?? Object.freeze({ key: item, label: item });
  if (typeof item !== "object" || item === null) return null;
  const { key, label } = item;
  const ofRow = state.offers.optionOfRow(item);
  if (ofRow !== null) return ofRow;
  if (typeof key !== "string") return null;
  return Object.freeze({
    key,
    label: typeof label === "string" ? label : find(key)?.label ?? key
  });
}

// src/core/session/writing.ts
var Writes = class {
  constructor(record, entry) {
    this.record = record;
    this.entry = entry;
  }
  record;
  entry;
  /** Values written, with what stood before. */
  before = null;
  /** Rows fields it changed, with their value before where somebody will ask. */
  rowsBefore = null;
  /** Rows that came and went. */
  rows = null;
  /** The last effect on each value, as the cause of what follows. */
  effects = null;
};
var NOTHING2 = [];
var Writing = class {
  constructor(state, tape, progress, ties) {
    this.state = state;
    this.tape = tape;
    this.progress = progress;
    this.ties = ties;
  }
  state;
  tape;
  progress;
  ties;
  /** Writes a value that a script said. False when it stood there already. */
  value(writes, aspect2, value, line2) {
    const { rows: rows3, row: row2 } = aspect2.part;
    if (rows3 !== null) return this.#wholeRows(writes, rows3, value, line2);
    const from = aspect2.base;
    if (equal(from, value)) return false;
    if (row2 !== null) this.#rowsTouched(writes, row2.rows);
    writes.before ??= /* @__PURE__ */ new Map();
    if (!writes.before.has(aspect2)) writes.before.set(aspect2, from);
    this.state.setValue(aspect2, value, writes.record);
    const effect = this.tape.effect(writes.entry, aspect2, from, value, { by: "script", line: line2 });
    if (this.tape.on) (writes.effects ??= /* @__PURE__ */ new Map()).set(aspect2, effect);
    return true;
  }
  /** Brings a rows field to a value: cells by place, rows added and removed at the end. */
  #wholeRows(writes, rows3, value, line2) {
    let wrote = false;
    value.slice(0, rows3.list.length).forEach((wanted, i) => {
      const row2 = rows3.list[i];
      for (const name2 of rows3.columns.keys()) {
        if (equal(row2.values[name2], wanted[name2])) continue;
        wrote = this.value(writes, rows3.cell(row2, name2).aspect("value"), wanted[name2], line2) || wrote;
      }
    });
    for (const row2 of rows3.list.slice(value.length)) {
      this.removeRow(writes, row2, line2);
      wrote = true;
    }
    for (const wanted of value.slice(rows3.list.length)) {
      this.addRow(writes, rows3, wanted, line2);
      wrote = true;
    }
    return wrote;
  }
  #rowsTouched(writes, rows3) {
    writes.rowsBefore ??= /* @__PURE__ */ new Map();
    if (!writes.rowsBefore.has(rows3)) writes.rowsBefore.set(rows3, this.#valueIfHeard(rows3));
  }
  /** The value of a rows field costs as much as it has rows, so it is made only where something needs it. */
  #valueIfHeard(rows3) {
    return this.ties.listens("change", rows3.field) ? rows3.value : null;
  }
  addRow(writes, rows3, values, line2) {
    this.#rowsTouched(writes, rows3);
    const row2 = rows3.make(values);
    this.state.setRows(rows3, [...rows3.list, row2]);
    this.#rowEvent(writes, row2, "added", rows3.list.length - 1, line2);
    return row2;
  }
  removeRow(writes, row2, line2) {
    const { rows: rows3 } = row2;
    this.#rowsTouched(writes, rows3);
    const place = row2.index;
    this.state.setRows(
      rows3,
      rows3.list.filter((other) => other !== row2)
    );
    this.#rowEvent(writes, row2, "removed", place, line2);
  }
  #rowEvent(writes, row2, did, place, line2) {
    const entry = this.tape.add(writes.entry, {
      type: "rows",
      part: row2.rows.field.name,
      did,
      row: row2.id,
      place,
      by: "script",
      line: line2
    });
    (writes.rows ??= []).push(
      rowEvent(row2, did, "script", writes.record, entry?.n ?? writes.entry)
    );
  }
  /** What handlers and rules have to hear of what a run wrote, in order. */
  told(writes) {
    if (writes.before === null && writes.rowsBefore === null && writes.rows === null)
      return NOTHING2;
    const { record, entry } = writes;
    const events = [];
    for (const [aspect2, previous] of writes.before ?? []) {
      const { base: value, part } = aspect2;
      const cause = writes.effects?.get(aspect2) ?? entry;
      if (part.row?.removed !== true && !equal(previous, value))
        events.push(changeEvent(part, value, previous, "script", record, cause));
    }
    events.push(...writes.rows ?? []);
    for (const [rows3, previous] of writes.rowsBefore ?? [])
      events.push(...this.#wholeChange(rows3, previous, "script", record, entry));
    return events;
  }
  #wholeChange(rows3, previous, by, from, cause) {
    if (!this.ties.listens("change", rows3.field)) return [];
    const { value, field: field3 } = rows3;
    return equal(previous, value) ? [] : [changeEvent(field3, value, previous, by, from, cause)];
  }
  /** Writes a value that no script wrote: tapes it and queues its events. A rows field is only ever emptied as a whole. */
  enter(part, value, by, cause) {
    const { rows: rows3, row: row2 } = part;
    if (rows3 !== null) return this.arrange(rows3.field, [], rows3.list, "removed", by, cause);
    const aspect2 = part.aspect("value");
    const previous = aspect2.base;
    const whole = row2?.rows ?? null;
    const rowsBefore = whole === null ? null : this.#valueIfHeard(whole);
    this.state.setValue(aspect2, value, null);
    const why = this.tape.effect(cause, aspect2, previous, value, { by, line: null });
    const events = this.ties.listens("change", part) ? [changeEvent(part, value, previous, by, null, why)] : [];
    if (whole !== null) events.push(...this.#wholeChange(whole, rowsBefore, by, null, why));
    this.#announce(events, by);
  }
  /** Puts the rows of a field in another order, with those named new, gone or moved, and queues its events. */
  arrange(field3, list2, touched, did, by, cause) {
    const rows3 = field3.rows;
    const before = this.#valueIfHeard(rows3);
    const places = did === "removed" ? rows3.list : list2;
    const taped = touched.map((row2) => ({ row: row2, place: this.tape.on ? places.indexOf(row2) : -1 }));
    this.state.setRows(rows3, list2);
    let why = cause;
    for (const { row: row2, place } of taped) {
      why = this.tape.add(cause, {
        type: "rows",
        part: field3.name,
        did,
        row: row2.id,
        place,
        by,
        line: null
      })?.n ?? cause;
    }
    const events = did === "moved" ? [] : taped.map(({ row: row2 }) => rowEvent(row2, did, by, null, why));
    this.#announce([...events, ...this.#wholeChange(rows3, before, by, null, why)], by);
  }
  /** A person's events belong to the item being taken, so they go before all that wait; the form's come after. */
  #announce(events, by) {
    if (events.length === 0) return;
    if (by === "person") this.progress.queue.unshift(...events);
    else this.progress.queue.push(...events);
  }
};
function changeEvent(part, value, previous, by, from, cause) {
  return { type: "change", part, row: part.row, value, previous, by, from, cause };
}
function rowEvent(row2, did, by, from, cause) {
  return {
    type: did === "added" ? "rowAdded" : "rowRemoved",
    part: row2.rows.field,
    row: row2,
    value: row2.values,
    previous: null,
    by,
    from,
    cause
  };
}

// src/core/session/rule-claims.ts
function seenBy(rule, aspect2) {
  return aspect2.ruleClaims.length > 0 && rule.claims.has(aspect2) ? aspect2.below(rule) : aspect2.current;
}
function differing(rule) {
  if (rule.reads === null) return null;
  for (const [aspect2, seen2] of rule.reads) {
    const now = seenBy(rule, aspect2);
    if (now !== seen2 && !equal(now, seen2)) return aspect2;
  }
  return null;
}
var RuleClaims = class {
  constructor(state, tape, progress, writing) {
    this.state = state;
    this.tape = tape;
    this.progress = progress;
    this.writing = writing;
  }
  state;
  tape;
  progress;
  writing;
  /**
   * Values to be put in place, by the rule that said them or fell silent, in the order in which rules did first. Not
   * undone entry by entry: `settling.ts` has it forgotten when the step is taken back.
   */
  #due = /* @__PURE__ */ new Map();
  /** Replaces what the rule's last run said with what this one says. */
  settle(rule, said, reads, record, entry) {
    const { claims: old, last, reads: oldReads } = rule;
    this.progress.journal.undoable(() => {
      rule.claims = old;
      rule.last = last;
      this.#depend(rule, oldReads);
    });
    rule.claims = said;
    rule.last = { record, entry };
    if (old.size > 0) {
      for (const aspect2 of old.keys()) if (!said.has(aspect2)) this.#withdraw(rule, aspect2);
    }
    for (const [aspect2, word] of said) {
      const standing = old.get(aspect2);
      const same = standing !== void 0 && equal(standing.value, word.value);
      if (aspect2.sticks || aspect2.derive !== null) {
        if (!same) this.state.setRuleClaim(aspect2, rule, word, record);
        if (!same || !equal(aspect2.current, word.value)) this.#owe(rule, aspect2);
        continue;
      }
      if (same) continue;
      const from = aspect2.current;
      this.state.setRuleClaim(aspect2, rule, word, record);
      this.#tapeClaim(rule, aspect2, from, word, standing === void 0);
      this.#noteConflict(rule, aspect2);
    }
    this.#depend(rule, reads);
  }
  #owe(rule, aspect2) {
    const owed = this.#due.get(rule);
    if (owed === void 0) this.#due.set(rule, /* @__PURE__ */ new Set([aspect2]));
    else owed.add(aspect2);
  }
  #withdraw(rule, aspect2) {
    const from = aspect2.current;
    const { record, entry } = rule.last;
    const shows = aspect2.winner?.rule === rule;
    this.state.setRuleClaim(aspect2, rule, null, record);
    if (aspect2.sticks || aspect2.derive !== null) {
      if (shows && aspect2.winner !== null) this.#owe(rule, aspect2);
      return;
    }
    if (!this.tape.on || !shows) return;
    const again = aspect2.winner;
    if (equal(from, aspect2.current) && again === null) return;
    this.tape.effect(entry, aspect2, from, aspect2.current, {
      by: "script",
      line: null,
      withdrawn: true,
      ...again === null ? {} : {
        again: {
          behaviour: again.rule.behaviour.name,
          title: again.rule.title,
          line: again.line
        }
      }
    });
  }
  /** Tapes a word that shows, or is covered by a later rule's; one that is new and shows even when it changes nothing. */
  #tapeClaim(rule, aspect2, from, word, isNew) {
    if (!this.tape.on) return;
    const covered = !equal(word.value, aspect2.current);
    const decides = isNew && aspect2.winner?.rule === rule;
    if (equal(from, aspect2.current) && !covered && !decides) return;
    this.tape.effect(rule.last.entry, aspect2, from, word.value, {
      by: "script",
      line: word.line,
      ...covered ? { covered: true } : {}
    });
  }
  #noteConflict(rule, aspect2) {
    const { ruleClaims, winner } = aspect2;
    if (!this.tape.on || ruleClaims.length < 2 || ruleClaims.every((word) => equal(word.value, winner.value)))
      return;
    this.tape.add(rule.last.entry, {
      type: "conflict",
      part: aspect2.part.name,
      aspect: aspect2.name,
      between: ruleClaims.map((word) => word.rule.title),
      wins: winner.rule.title
    });
  }
  /** Puts in place what rules say of values, now that no rule is left to run; gives the events that follow from it, or null when nothing was due. */
  putValues() {
    if (this.#due.size === 0) return null;
    const due = [...this.#due].sort((a, b) => a[0].order - b[0].order);
    this.#due = /* @__PURE__ */ new Map();
    return due.flatMap(([rule, aspects]) => {
      const writes = new Writes(rule.last.record, rule.last.entry);
      for (const aspect2 of aspects) this.#putValue(rule, aspect2, writes);
      return this.writing.told(writes);
    });
  }
  #putValue(rule, aspect2, writes) {
    const { winner } = aspect2;
    if (winner === null || aspect2.part.row?.removed === true) return;
    const own2 = rule.claims.get(aspect2);
    this.#noteConflict(rule, aspect2);
    if (own2 !== void 0 && !equal(own2.value, winner.value)) return;
    const { value, line: line2 } = own2 ?? winner;
    const before = this.#seenBefore(rule, aspect2);
    if (this.writing.value(writes, aspect2, value, line2))
      for (const [seen2, was] of before) this.#seeOwn(rule, seen2, was);
    else if (own2 !== void 0) this.#tapeDecided(writes, aspect2, value, line2);
  }
  /** A rule that says what stands there anyway is on the tape as the one who decides it. */
  #tapeDecided(writes, aspect2, value, line2) {
    if (aspect2.changedBy?.tie === writes.record.tie) return;
    this.tape.effect(writes.entry, aspect2, value, value, { by: "script", line: line2 });
  }
  /** What the rule has read that this value is, or is computed into, with its value before the write. */
  #seenBefore(rule, aspect2) {
    const rows3 = aspect2.part.row?.rows ?? aspect2.part.rows;
    return [...rule.reads ?? []].filter(
      ([read2, seen2]) => (read2 === aspect2 || rows3 !== null && read2.part.rows === rows3 || read2.part.row?.rows === rows3) && equal(seen2, read2.current)
    ).map(([read2, seen2]) => [read2, seen2]);
  }
  /** A rule's own writes never set it off: it counts as having seen them. */
  #seeOwn(rule, read2, was) {
    const { reads } = rule;
    if (reads === null || !read2.sticks && read2.derive === null) return;
    reads.set(read2, read2.current);
    this.progress.journal.undoable(() => reads.set(read2, was));
  }
  /** Makes a rule depend on what it read in a run that failed. */
  remember(rule, reads) {
    const before = rule.reads;
    this.#depend(rule, reads);
    this.progress.journal.undoable(() => this.#depend(rule, before));
  }
  #depend(rule, reads) {
    const before = rule.reads;
    rule.reads = reads;
    if (before !== null && reads !== null && sameKeys(before, reads)) return;
    if (before !== null) for (const aspect2 of before.keys()) aspect2.readers?.delete(rule);
    if (reads !== null) for (const aspect2 of reads.keys()) aspect2.readBy(rule);
  }
  /** The step was taken back: nothing is due. */
  forget() {
    if (this.#due.size > 0) this.#due = /* @__PURE__ */ new Map();
  }
};
function sameKeys(a, b) {
  if (a.size !== b.size) return false;
  for (const key of a.keys()) if (!b.has(key)) return false;
  return true;
}

// src/core/session/waiting.ts
var OpenRun = class {
  constructor(number6, handler, title, part, row2, record) {
    this.number = number6;
    this.handler = handler;
    this.title = title;
    this.part = part;
    this.row = row2;
    this.record = record;
  }
  number;
  handler;
  title;
  part;
  row;
  record;
  state = "open";
  calls = /* @__PURE__ */ new Set();
  /** What it said of aspects, with what stood before it: taken back when it is superseded. */
  claims = /* @__PURE__ */ new Map();
};
var Waiting = class {
  constructor(progress, drop) {
    this.progress = progress;
    this.drop = drop;
  }
  progress;
  drop;
  /** In the order in which they began. */
  runs = [];
  #calls = [];
  /** Never given again, even after an undoing: the scripts' end knows calls by it. */
  #order = 0;
  add(call) {
    const made = { ...call, order: this.#order++ };
    this.#setCalls([...this.#calls, made]);
    call.run.calls.add(made);
    this.progress.journal.undoable(() => call.run.calls.delete(made));
    return made;
  }
  /** The run waits; it is told among those that do. A step that is taken back ends it, since it cannot begin again. */
  keep(run2) {
    this.progress.journal.undoable(() => this.#lose(run2));
    if (!this.runs.includes(run2)) this.#setRuns([...this.runs, run2]);
  }
  /** The call that ends next, up to a moment of the clock; null when none does. */
  next(until) {
    let next = null;
    for (const call of this.#calls) {
      if (call.due <= until && (next === null || call.due < next.due)) next = call;
    }
    return next;
  }
  /** A call of this name that is pending; the oldest is 0. */
  pending(name2, which) {
    return this.#calls.filter((call) => call.name === name2)[which] ?? null;
  }
  /** The call has ended and its run goes on: what follows cannot be done again. */
  answered(call) {
    this.#calls = this.#calls.filter((other) => other !== call);
    call.run.calls.delete(call);
    this.progress.journal.undoable(() => this.#lose(call.run));
  }
  /** Calls that are pending, the oldest first. */
  get calls() {
    return this.#calls;
  }
  /** The open run of the same handler for the same part and row. */
  earlier(handler, part, row2) {
    for (const run2 of this.runs)
      if (run2.handler === handler && run2.part === part && run2.row === row2) return run2;
    return null;
  }
  /** Ends a run, with all it waits for. */
  end(run2, state) {
    const calls = [...run2.calls];
    run2.state = state;
    run2.calls.clear();
    this.#setRuns(this.runs.filter((other) => other !== run2));
    this.#setCalls(this.#calls.filter((call) => call.run !== run2));
    this.progress.journal.undoable(() => {
      run2.state = "open";
      for (const call of calls) run2.calls.add(call);
    });
    if (state === "superseded") this.progress.onCommit(() => this.drop(run2.number));
  }
  /** Its step was taken back: a run that began or went on in it is over, wherever the undoing leaves it. */
  #lose(run2) {
    if (run2.state !== "superseded") this.drop(run2.number);
    run2.state = "superseded";
    run2.calls.clear();
    this.runs = this.runs.filter((other) => other !== run2);
    this.#calls = this.#calls.filter((call) => call.run !== run2);
  }
  #setRuns(runs) {
    const before = this.runs;
    this.runs = runs;
    this.progress.journal.undoable(() => {
      this.runs = before.filter((run2) => run2.state === "open");
    });
  }
  #setCalls(calls) {
    const before = this.#calls;
    this.#calls = calls;
    this.progress.journal.undoable(() => {
      this.#calls = before.filter((call) => call.run.state === "open");
    });
  }
};

// src/core/session/current-run.ts
var NOBODY = { handler: null, behaviour: "", entry: null, noted: null };
var CurrentRun = class {
  constructor(state, tape, waiting, progress, writing, observer) {
    this.state = state;
    this.tape = tape;
    this.waiting = waiting;
    this.progress = progress;
    this.writing = writing;
    this.observer = observer;
  }
  state;
  tape;
  waiting;
  progress;
  writing;
  observer;
  /** Somebody asks something on the way, who may read all and change nothing. */
  #asking = false;
  /** Scripts can touch parts only while there is one. */
  #run = null;
  /** What is asked while this works is asked by the run. */
  during(run2, work) {
    this.#run = run2;
    if (run2.entry !== null) this.observer?.begins(run2.entry.n);
    try {
      return work();
    } finally {
      this.#run = null;
      this.observer?.ends();
    }
  }
  get isAsking() {
    return this.#asking;
  }
  /** Turns on or off that reads come from a watch or the prompt and not from a run. */
  asking(asking) {
    this.#asking = asking;
  }
  /** The run going on. Throws where there is none. */
  demand(what) {
    if (this.#asking && this.#run === null) return NOBODY;
    const run2 = this.#demand(what);
    return {
      handler: run2.handler,
      behaviour: (run2.handler ?? run2.rule).behaviour.name,
      entry: run2.entry?.n ?? null,
      noted: run2.noted
    };
  }
  #demand(what) {
    if (this.#run === null) throw new ScriptError("wrong_use", words.outside(what));
    return this.#run;
  }
  /** A fault that also ends the run where the script catches it. */
  fault(fault) {
    if (this.#run !== null && !this.#asking) this.#run.fault ??= fault;
    throw fault;
  }
  /** The run going on, if there is one, has failed whatever its end will say. */
  blame(fault) {
    if (this.#run !== null && !this.#asking) this.#run.fault ??= fault;
  }
  /** What a script sees of an aspect. A rule's reads are what it depends on. */
  read(aspect2) {
    if (this.#asking) return this.#seen(aspect2);
    const run2 = this.#run ?? this.#demand(`${aspect2.part.name}.${aspect2.name} was read`);
    const { rule } = run2;
    if (rule === null) {
      run2.noted?.add(aspect2.part);
      const { current } = aspect2;
      run2.saw(aspect2, current);
      this.observer?.read(aspect2, current);
      return current;
    }
    const own2 = run2.said.get(aspect2);
    if (own2 !== void 0) {
      this.observer?.read(aspect2, own2.value);
      return own2.value;
    }
    const seen2 = seenBy(rule, aspect2);
    run2.saw(aspect2, seen2);
    this.observer?.read(aspect2, seen2);
    return seen2;
  }
  /** The same for somebody who asks, which leaves no mark. */
  #seen(aspect2) {
    const rule = this.#run?.rule ?? null;
    if (rule === null) return aspect2.current;
    const own2 = this.#run.said.get(aspect2);
    return own2 === void 0 ? seenBy(rule, aspect2) : own2.value;
  }
  /** Something is asked that is no aspect. */
  asks(what, value) {
    this.notesAsked(what);
    this.observer?.asked(what, value);
  }
  /** The same where whoever looks on is told of it as a read. */
  notesAsked(what) {
    if (!this.#asking) this.#run?.noticed?.asked.add(what);
  }
  /** What a script says of an aspect; undefined takes back what it said. */
  say(aspect2, offered2, line2) {
    if (this.#asking) throw new ScriptError("wrong_use", words.askingOnly);
    const run2 = this.#run ?? this.#demand(`${aspect2.part.name}.${aspect2.name} was written`);
    const { part } = aspect2;
    const { rule } = run2;
    if (part.row?.removed === true)
      this.fault(new ScriptError("wrong_use", words.rowGone(part.name)));
    if (rule !== null && rule.row !== null && rule.row !== part.row)
      this.fault(new ScriptError("wrong_use", words.notRow(part.name)));
    if (aspect2.name === "value") {
      const value2 = this.guarded(() => acceptValue(this.state, part, offered2));
      this.observer?.said(aspect2, value2, line2);
      if (rule === null) this.writing.value(run2.writes, aspect2, value2, line2);
      else run2.claim(aspect2, { value: value2, line: line2 });
      return;
    }
    const value = offered2 === void 0 ? void 0 : typeof offered2 === "boolean" && typeof aspect2.base === "boolean" ? offered2 : this.guarded(() => acceptAspect(this.state, aspect2, offered2));
    this.observer?.said(aspect2, value, line2);
    if (rule !== null) {
      run2.claim(aspect2, value === void 0 ? null : { value, line: line2 });
      return;
    }
    const from = aspect2.current;
    const before = run2.claims?.get(aspect2)?.before ?? aspect2.handlerClaim;
    this.state.putHandlerClaim(aspect2, value === void 0 ? null : { value }, run2.record);
    (run2.claims ??= /* @__PURE__ */ new Map()).set(aspect2, { before, mine: aspect2.handlerClaim });
    this.#tapeClaim(run2, aspect2, from, value, line2);
  }
  /** Tapes a handler's word if anything came of it; one hidden by a rule's is taped as covered. */
  #tapeClaim(run2, aspect2, from, said, line2) {
    if (!this.tape.on) return;
    const to = aspect2.current;
    const covered = said !== void 0 && !equal(said, to);
    if (equal(from, to) && !covered) return;
    this.tape.effect(run2.entry.n, aspect2, from, covered ? said : to, {
      by: "script",
      line: line2,
      ...covered ? { covered: true } : {}
    });
  }
  /** Does something of which every ScriptError is one of the run. */
  guarded(work) {
    try {
      return work();
    } catch (caught) {
      if (caught instanceof ScriptError) return this.fault(caught);
      throw caught;
    }
  }
  /** Something a handler does that is no aspect; refused to rules. */
  act(what) {
    if (this.#asking) throw new ScriptError("wrong_use", words.askingOnly);
    const run2 = this.#demand(`${what} was called`);
    if (run2.rule !== null) this.fault(new ScriptError("wrong_use", words.notInRule(what)));
    return run2;
  }
  message(text3, tone, line2) {
    const run2 = this.act("form.message()");
    (run2.messages ??= []).push({
      message: { text: text3, tone, behaviour: run2.handler.behaviour.name },
      line: line2
    });
  }
  log(values, line2) {
    if (this.#asking) throw new ScriptError("wrong_use", words.askingOnly);
    const { behaviour, entry } = this.demand("log() was called");
    const told = { behaviour, line: line2, values };
    this.progress.logs.push(told);
    this.tape.add(entry, { type: "log", ...told, struck: false });
  }
  wantSubmit() {
    this.act("form.submit()").wantsSubmit = true;
  }
  askParent(set, to, line2) {
    (this.act("parent.set()").toParent ??= []).push({ set, to, line: line2 });
  }
  /** Calls something that ends later, at `due`. The number of the call. */
  call(name2, args, now, due, line2, outcome) {
    const run2 = this.act(`${name2}()`);
    if (this.waiting.calls.length >= CALLS_WAITING)
      this.fault(new ScriptError("wrong_use", words.tooManyCalls(name2, CALLS_WAITING)));
    const { title, part, row: row2 } = run2.trigger;
    run2.open ??= new OpenRun(run2.number, run2.handler, title, part, row2, run2.record);
    const entry = this.tape.add(run2.entry?.n ?? null, {
      type: "call",
      name: name2,
      args,
      due: Number.isFinite(due) ? due : null,
      line: line2
    });
    return this.waiting.add({
      name: name2,
      args,
      run: run2.open,
      due,
      since: now,
      entry: entry?.n ?? null,
      outcome
    }).order;
  }
};

// src/core/form/zone.ts
var formats = /* @__PURE__ */ new Map();
function formatOf(zone) {
  let format = formats.get(zone);
  if (format === void 0) {
    try {
      format = new Intl.DateTimeFormat("en-u-ca-iso8601", {
        timeZone: zone,
        hourCycle: "h23",
        year: "numeric",
        month: "numeric",
        day: "numeric",
        hour: "numeric",
        minute: "numeric",
        second: "numeric",
        era: "short"
      });
    } catch {
      format = null;
    }
    if (formats.size > 500) formats.clear();
    formats.set(zone, format);
  }
  return format;
}
function isZone(name2) {
  return name2.length <= 60 && /^[A-Za-z][A-Za-z0-9_+/-]*$/.test(name2) && formatOf(name2) !== null;
}
function wallClock(zone, at) {
  const format = isZone(zone) ? formatOf(zone) : null;
  if (format === null || !Number.isFinite(at) || Math.abs(at) > 864e13) return null;
  const found2 = {};
  for (const { type, value } of format.formatToParts(at)) found2[type] = value;
  const year = Number(found2.year);
  return [
    found2.era?.startsWith("B") === true ? 1 - year : year,
    Number(found2.month),
    Number(found2.day),
    Number(found2.hour),
    Number(found2.minute),
    Number(found2.second)
  ];
}

// src/core/session/defaults.ts
var two = (n2) => String(n2).padStart(2, "0");
var Defaults = class {
  constructor(situation, clock) {
    this.situation = situation;
    this.clock = clock;
  }
  situation;
  clock;
  /** Days and times are those of the session's zone. */
  of(field3) {
    if ("default" in field3 && field3.default !== void 0) return field3.default;
    if (!("defaultFrom" in field3) || field3.defaultFrom === void 0) return emptyOf(field3);
    const { person } = this.situation.opening;
    const { now, zone } = this.clock;
    const [year, month, day, hour, minute] = wallClock(zone, now);
    switch (field3.defaultFrom) {
      case "person_name":
        return person.name;
      case "person_key":
        return person.key;
      case "person_role":
        return person.roles[0] ?? null;
      case "today":
        return `${String(year).padStart(4, "0")}-${two(month)}-${two(day)}`;
      case "now":
        return field3.kind === "time" ? `${two(hour)}:${two(minute)}` : `${new Date(now).toISOString().slice(0, 19)}Z`;
    }
  }
  /** What a new row begins with, by cell. */
  ofCells(cells2) {
    return Object.fromEntries(cells2.map((cell) => [cell.name, this.of(cell)]));
  }
};

// src/core/session/desk.ts
var Desk = class {
  constructor(state, run2, writing, services, clock, defaults, situation, ties, pages, progress, opened, stopping, observer) {
    this.state = state;
    this.run = run2;
    this.writing = writing;
    this.services = services;
    this.clock = clock;
    this.defaults = defaults;
    this.situation = situation;
    this.ties = ties;
    this.pages = pages;
    this.progress = progress;
    this.opened = opened;
    this.stopping = stopping;
    this.observer = observer;
  }
  state;
  run;
  writing;
  services;
  clock;
  defaults;
  situation;
  ties;
  pages;
  progress;
  opened;
  stopping;
  observer;
  get parts() {
    return this.state.parts;
  }
  /** A row of reference data. */
  tableRow(table, key) {
    return this.state.offers.row(table, key);
  }
  get now() {
    return this.clock.now;
  }
  random() {
    if (this.run.isAsking) return this.run.fault(new ScriptError("wrong_use", words.askingOnly));
    const number6 = this.clock.random();
    this.run.asks("random", number6);
    return number6;
  }
  read(part, name2) {
    return this.run.read(part.aspects[name2] ?? part.aspect(name2));
  }
  say(part, name2, offered2, line2) {
    this.run.say(part.aspects[name2] ?? part.aspect(name2), offered2, line2);
  }
  /** Whether a part, and all it stands in, is shown. Each is a read of its own. */
  onScreen(part) {
    for (let p = part; p !== null; p = p.parent)
      if (p.has("shown") && this.read(p, "shown") !== true) return false;
    return true;
  }
  editable(part) {
    for (let p = part; p !== null; p = p.parent)
      if (p.has("locked") && this.read(p, "locked") !== false) return false;
    return !part.scriptOnly;
  }
  previous(part) {
    this.read(part, "value");
    this.run.notesAsked(`previous ${part.name}`);
    return this.state.previous.get(part) ?? null;
  }
  initial(part) {
    this.read(part, "value");
    this.run.notesAsked(`initial ${part.name}`);
    return this.state.initialOf(part);
  }
  orphan(part) {
    this.read(part, "value");
    return this.state.orphans.has(part);
  }
  options(part) {
    return this.state.offers.optionsOf(part.field, this.read(part, "options")) ?? NO_OPTIONS;
  }
  optionLabel(part) {
    const value = this.read(part, "value");
    const set = this.read(part, "options");
    const { field: field3 } = part;
    const around = {
      options: set,
      table: (name2) => this.state.offers.table(name2)
    };
    if (!holdsKeys(field3) || value === null) return null;
    return isList(field3) ? value.map((key) => textOf([key], field3, around)) : textOf(value, field3, around);
  }
  /** The rows of a field in order; a rule depends on which there are. */
  rows(part) {
    this.run.read(part.rows.order);
    return part.rows.list;
  }
  count(part) {
    return this.run.read(part.rows.count);
  }
  sum(part, column) {
    return this.run.read(part.rows.sum(column));
  }
  index(row2) {
    this.run.read(row2.rows.order);
    return row2.index;
  }
  /** How the form was opened, which stays as it is. */
  standing(what) {
    this.run.demand(`form.${what} was read`);
    const { opening, isNew, record, viewing } = this.situation;
    const standing = {
      isNew,
      record,
      person: opening.person,
      launch: opening.launch,
      viewing
    };
    this.run.asks(what, standing[what]);
    return standing[what];
  }
  get zone() {
    return this.clock.zone;
  }
  /** `fields.NAME.add(values)`: a new row begins with the defaults of its cells, and what is given instead. */
  addRow(part, given, line2) {
    const rows3 = part.rows;
    const run2 = this.run.act(`fields.${part.name}.add()`);
    if (rows3.list.length >= ROWS_PER_FIELD)
      this.#wrong("wrong_use", words.tooManyRows(part.name, ROWS_PER_FIELD));
    const values = typeof given === "object" || given === void 0 ? {
      ...this.defaults.ofCells([...rows3.columns.values()].map(({ field: field3 }) => field3)),
      ...defined(given)
    } : given;
    const read2 = readRow(
      values,
      part.field,
      this.state.offers.surroundings(part),
      accept
    );
    if (typeof read2 === "string")
      return this.#wrong(
        "wrong_value",
        words.wrongArguments(`${part.name}.add`, `takes the cells of a row; ${read2}.`)
      );
    return this.writing.addRow(run2.writes, rows3, read2, line2);
  }
  /** `fields.NAME.remove(row)`. */
  removeRow(part, row2, line2) {
    const run2 = this.run.act(`fields.${part.name}.remove()`);
    if (row2.rows !== part.rows || row2.removed) this.#wrong("wrong_use", words.noRow(part.name, {}));
    this.writing.removeRow(run2.writes, row2, line2);
  }
  /** `services.NAME.FUNCTION(args)`. The number of the call. */
  callService(service, called, offered2, line2) {
    this.run.act(`services.${service}.${called}()`);
    const asked2 = this.run.guarded(() => this.services.ask(service, called, offered2));
    const { now } = this.clock;
    return this.run.call(asked2.name, asked2.args, now, now + asked2.delay, line2, asked2.outcome);
  }
  after(milliseconds, line2) {
    const { now } = this.clock;
    return this.run.call("after", milliseconds, now, now + milliseconds, line2, () => ({
      ok: true,
      value: void 0
    }));
  }
  get hasParent() {
    this.run.demand("parent was read");
    return this.situation.opening.parent != null;
  }
  parentValue(name2) {
    this.run.demand("parent.get() was called");
    const { form: form2, fields, values } = this.situation.opening.parent;
    if (!fields.some((field3) => field3.name === name2))
      return this.#wrong("wrong_use", words.noParentField(name2, form2));
    const value = Object.hasOwn(values, name2) ? values[name2] : null;
    this.run.asks(`parent.${name2}`, value);
    return value;
  }
  /** `parent.set(name, value)`. The number of the call. */
  setInParent(name2, offered2, line2) {
    this.run.act("parent.set()");
    const { form: form2, fields } = this.situation.opening.parent;
    const field3 = fields.find((one) => one.name === name2);
    const { now } = this.clock;
    const refuse = (reason) => this.run.call("parent.set", name2, now, now, line2, () => ({ ok: false, reason }));
    if (field3 === void 0) return refuse(words.noParentField(name2, form2));
    let value = offered2;
    if (field3.kind !== "rows" && field3.kind !== "reference") {
      const accepted = accept(offered2, field3, {
        options: null,
        table: (table) => this.state.offers.table(table)
      });
      if (!accepted.ok) return refuse(`${field3.label} takes ${accepted.takes}`);
      ({ value } = accepted);
    }
    this.run.askParent(field3.name, value, line2);
    return this.run.call("parent.set", field3.name, now, now, line2, () => ({
      ok: true,
      value: void 0
    }));
  }
  /** `form.clear()`: all fields to their defaults; rules hold again at once. */
  clear(line2) {
    const { writes } = this.run.act("form.clear()");
    for (const part of this.state.parts.fields)
      this.writing.value(writes, part.aspect("value"), this.defaults.of(part.field), line2);
    this.#holdAgain();
  }
  /** `form.reset()`: back to what stood when the opening had settled, prefills included. */
  reset(line2) {
    const { writes } = this.run.act("form.reset()");
    for (const part of this.state.parts.fields)
      this.writing.value(
        writes,
        part.aspect("value"),
        this.opened.valueOf(part) ?? emptyOf(part.field),
        line2
      );
    this.#holdAgain();
  }
  #holdAgain() {
    for (const rule of this.ties.all()) {
      const { state } = rule;
      rule.state = "forced";
      this.state.outdated.rules.add(rule);
      this.progress.journal.undoable(() => {
        rule.state = state === "rests" ? "stirred" : state;
      });
    }
  }
  submit() {
    this.run.act("form.submit()");
    if (this.situation.submitting) this.#wrong("wrong_use", words.submitInSubmit);
    this.run.wantSubmit();
  }
  openPage(page, line2) {
    const { entry } = this.run.act(`pages.${page.name}.open()`);
    this.pages.turnTo(page, entry?.n ?? null, line2);
  }
  /** Stops the event of this number, with a message on a part. */
  stop(event, says, part) {
    const { noted } = this.run.demand("event.stop() was called");
    if (!this.stopping.stop(event, says, part, noted ?? NOTHING_READ))
      this.#wrong("wrong_use", words.stopTooLate);
    this.observer?.stopped(part, says);
  }
  /** Ties may be made at the top level and while a record is loaded. */
  tie(tied) {
    this.#mayTie(
      tied.is === "handler" ? `on.${tied.event}` : tied.rows === null ? "keep" : "keep.each"
    );
    this.ties.add(tied, true);
  }
  untie(number6) {
    this.ties.untie(number6);
  }
  #mayTie(call) {
    const { handler } = this.run.demand(`${call} was called`);
    if (handler?.event !== "load") this.#wrong("wrong_use", words.tieInside(call));
  }
  #wrong(code, says) {
    return this.run.fault(new ScriptError(code, says));
  }
};
var NO_OPTIONS = Object.freeze([]);
var NOTHING_READ = /* @__PURE__ */ new Set();
function defined(given) {
  return Object.fromEntries(
    Object.entries(given ?? {}).filter(([, value]) => value !== void 0)
  );
}

// src/core/session/rows.ts
var Row = class {
  constructor(rows3, id, values, nesting) {
    this.rows = rows3;
    this.id = id;
    this.values = values;
    this.part = new Part(
      "row",
      `${rows3.field.name}#${id}`,
      rows3.field.definition,
      rows3.field,
      nesting,
      ROW_BASES,
      this
    );
  }
  rows;
  id;
  values;
  part;
  cells = /* @__PURE__ */ new Map();
  /** The rules for each row, bound to this one. */
  rules = [];
  /** Not in the list: not yet, or no longer. */
  removed = true;
  /** While a list is replaced: it is in the new one. */
  here = false;
  /** Its values as opened or saved; null for a row that came since. */
  initial = null;
  /** Its state as it was reported last. */
  told = { values: null, state: {} };
  /** Its place now, from 0; −1 once removed. */
  get index() {
    return this.rows.list.indexOf(this);
  }
};
var Rows = class {
  constructor(field3, definition, nesting) {
    this.field = field3;
    this.nesting = nesting;
    this.columnNames = definition.fields.map(({ name: name2 }) => name2);
    this.columns = new Map(
      definition.fields.map((cell, at) => [
        cell.name,
        { field: cell, bases: basesOf("field", cell), at }
      ])
    );
  }
  field;
  nesting;
  columns;
  /** The names of the columns in their order. */
  columnNames;
  /** In the order shown. Replaced, never changed in place. */
  list = [];
  /** The rows as opened or saved, each with its values then. */
  initial = { list: [], values: [] };
  /** Rows whose values differ from those as opened, while the list is still the same. */
  differing = /* @__PURE__ */ new Set();
  /** The rules that hold for each row. */
  each = [];
  toldOrder = null;
  /** Its rows were replaced by those of another record, which has not been reported yet. */
  anew = false;
  #derived = /* @__PURE__ */ new Map();
  #value = null;
  #sums = /* @__PURE__ */ new Map();
  #ids = null;
  #next = 1;
  make(values) {
    return new Row(this, String(this.#next++), deepFreeze({ ...values }), this.nesting);
  }
  cell(row2, name2) {
    const made = row2.cells.get(name2);
    if (made !== void 0) return made;
    const { field: field3, bases } = this.columns.get(name2);
    const part = new Part(
      "field",
      `${row2.part.name}.${name2}`,
      field3,
      row2.part,
      this.nesting,
      bases,
      row2
    );
    row2.cells.set(name2, part);
    return part;
  }
  /** The value of the whole field. Built when somebody asks, and kept until something changes. */
  get value() {
    return this.#value ??= Object.freeze(this.list.map((row2) => row2.values));
  }
  /** The ids in order, which is what depends on rows being added, removed or moved. */
  get order() {
    return this.#derive("order", () => {
      if (this.#ids?.list !== this.list)
        this.#ids = { list: this.list, ids: Object.freeze(this.list.map((row2) => row2.id)) };
      return this.#ids.ids;
    });
  }
  get count() {
    return this.#derive("count", () => this.list.length);
  }
  /** The sum of a column, empty cells counting nothing; in IEEE doubles from the first row to the last. */
  sum(column) {
    return this.#derive(`sum:${column}`, () => {
      const known2 = this.#sums.get(column);
      if (known2 !== void 0) return known2;
      let sum = 0;
      for (const { values } of this.list) sum += values[column] ?? 0;
      this.#sums.set(column, sum);
      return sum;
    });
  }
  #derive(name2, compute) {
    let aspect2 = this.#derived.get(name2);
    if (aspect2 === void 0)
      this.#derived.set(name2, aspect2 = new Aspect(this.field, name2, null, compute));
    return aspect2;
  }
  /** Something changed: the aspects computed from it, to be looked at again. A null column means rows came, went or moved. */
  changed(column) {
    this.#value = null;
    const stirred = [];
    const { value } = this.field.aspects;
    if (value !== void 0) stirred.push(value);
    if (column === null) {
      this.#sums.clear();
      stirred.push(...this.#derived.values());
    } else if (this.#sums.delete(column)) stirred.push(this.#derived.get(`sum:${column}`));
    return stirred;
  }
  /** Whether the field differs from what was opened; `row` is the one that changed, null when rows came, went or moved. */
  differs(row2) {
    const { list: list2, initial, differing: differing2 } = this;
    if (list2 !== initial.list)
      return list2.length !== initial.values.length || list2.some((one, i) => !equal(one.values, initial.values[i]));
    for (const one of row2 === null ? list2 : [row2]) {
      if (equal(one.values, one.initial)) differing2.delete(one);
      else differing2.add(one);
    }
    return differing2.size > 0;
  }
  /** What stands now is what was opened or saved. */
  rebase() {
    const { list: list2 } = this;
    this.initial = { list: list2, values: list2.map((row2) => row2.values) };
    for (const row2 of list2) row2.initial = row2.values;
    this.differing.clear();
  }
  clear() {
    this.list = [];
    this.anew = true;
    this.initial = { list: [], values: [] };
    this.differing.clear();
    this.#next = 1;
    for (const aspect2 of this.changed(null)) aspect2.readers?.clear();
  }
};

// src/core/session/tree.ts
var FORM = "@form";
function partsOf(form2) {
  const nesting = { version: 0 };
  const root = new Part("form", FORM, form2, null, nesting, basesOf("form", form2));
  const byName = /* @__PURE__ */ new Map([[FORM, root]]);
  const pages = [];
  const fields = [];
  const add = (sort, definition, parent) => {
    const part = new Part(
      sort,
      definition.name,
      definition,
      parent,
      nesting,
      basesOf(sort, definition)
    );
    byName.set(part.name, part);
    return part;
  };
  for (const page of form2.pages) {
    const pagePart = add("page", page, root);
    pages.push(pagePart);
    for (const section2 of page.sections) {
      const sectionPart = add("section", section2, pagePart);
      for (const field3 of section2.fields) {
        const part = add("field", field3, sectionPart);
        if (field3.kind === "rows") part.rows = new Rows(part, field3, nesting);
        fields.push(part);
      }
    }
  }
  for (const button2 of form2.buttons ?? []) {
    add("button", button2, button2.section === void 0 ? root : byName.get(button2.section));
  }
  for (const track of form2.tracks ?? []) add("track", track, root);
  return { nesting, form: root, byName, pages, fields };
}
function partAt(parts, address) {
  const found2 = readRowAddress(address);
  if (found2 === null) return address === FORM ? null : parts.byName.get(address) ?? null;
  const rows3 = parts.byName.get(found2.rows)?.rows ?? null;
  const row2 = rows3?.list[found2.place];
  if (rows3 === null || row2 === void 0) return null;
  if (found2.cell === null) return row2.part;
  return rows3.columns.has(found2.cell) ? rows3.cell(row2, found2.cell) : null;
}

// src/core/session/step-words.ts
var VIEWING = "this record is only being viewed";
function reachable(state, situation, name2, sort) {
  const part = partAt(state.parts, name2);
  if (part === null || part.sort !== sort) return `there is no ${sort} "${name2}"`;
  if (!part.onScreen) return `${part.label} is hidden`;
  if (!part.editable) return situation.viewing ? VIEWING : `${part.label} is locked`;
  return part;
}
function offer(state, part, offered2) {
  if (part.rows !== null)
    return `the rows of ${part.label} are added, removed and filled in one by one`;
  const current = part.value;
  const accepted = accept(offered2, part.field, state.offers.surroundings(part));
  if (!accepted.ok)
    return equal(offered2, current) ? { value: current } : `${part.label} (${part.field.kind}) takes ${accepted.takes}, not ${inWords(offered2)}`;
  if (!state.offers.isOffered(part, accepted.value) && !equal(accepted.value, current)) {
    return `${state.offers.notOffered(part, accepted.value).map((key) => JSON.stringify(key)).join(", ")} is not among the options of ${part.label}`;
  }
  return { value: accepted.value };
}

// src/core/session/entering.ts
var Entering = class {
  constructor(state, progress, situation, ties, waiting, writing) {
    this.state = state;
    this.progress = progress;
    this.situation = situation;
    this.ties = ties;
    this.waiting = waiting;
    this.writing = writing;
  }
  state;
  progress;
  situation;
  ties;
  waiting;
  writing;
  set(name2, offered2, cause) {
    this.#leaveTyping(name2, cause);
    const found2 = this.#found(name2, offered2);
    if (typeof found2 === "string") return found2;
    const { part, value } = found2;
    this.situation.typing = null;
    this.#moveFocus(part, cause);
    this.#fire("input", part, value, cause);
    this.#commit(part, value, cause);
    this.#fire("blur", part, value, cause);
    this.situation.focused = null;
    return null;
  }
  input(name2, offered2, cause) {
    this.#leaveTyping(name2, cause);
    const found2 = this.#found(name2, offered2);
    if (typeof found2 === "string") return found2;
    const { part, value } = found2;
    this.#moveFocus(part, cause);
    this.situation.typing = { part, value };
    this.#fire("input", part, value, cause);
    return null;
  }
  focus(name2, cause) {
    this.#leaveTyping(name2, cause);
    const part = this.#reachable(name2, "field");
    const visited = typeof part === "string" ? partAt(this.state.parts, name2) : part;
    if (typeof part === "string" && (visited === null || visited.sort !== "field" || !visited.onScreen))
      return part;
    this.#moveFocus(visited, cause);
    return null;
  }
  blur(name2, cause) {
    const part = partAt(this.state.parts, name2);
    if (part === null || part.sort !== "field") return `there is no field "${name2}"`;
    this.commitTyping(cause);
    if (this.situation.focused === part) {
      this.#fire("blur", part, part.value, cause);
      this.situation.focused = null;
    }
    return null;
  }
  click(name2, cause) {
    const part = this.#reachable(name2, "button");
    if (typeof part === "string") return part;
    const busy = this.waiting.runs.some(
      (run2) => run2.part === part && run2.handler.overlap === "supersede"
    );
    if (busy) return `${part.label} is busy until what it began has ended`;
    this.#fire("click", part, null, cause);
    return null;
  }
  /** What was typed is entered, as any other step does first. */
  commitTyping(cause) {
    const { typing } = this.situation;
    if (typing === null) return;
    this.situation.typing = null;
    if (typing.part.row?.removed !== true) this.#commit(typing.part, typing.value, cause);
    if (this.situation.focused === typing.part) {
      this.#fire("blur", typing.part, typing.value, cause);
      this.situation.focused = null;
    }
  }
  #leaveTyping(name2, cause) {
    const { typing } = this.situation;
    if (typing !== null && typing.part.address !== name2) this.commitTyping(cause);
  }
  #reachable(name2, sort) {
    return reachable(this.state, this.situation, name2, sort);
  }
  #found(name2, offered2) {
    const part = this.#reachable(name2, "field");
    if (typeof part === "string") return part;
    const taken = offer(this.state, part, offered2);
    return typeof taken === "string" ? taken : { part, value: taken.value };
  }
  #moveFocus(part, cause) {
    const before = this.situation.focused;
    if (before === part) return;
    if (before !== null) this.#fire("blur", before, before.value, cause);
    this.situation.focused = part;
    this.#fire("focus", part, part.value, cause);
  }
  #fire(type, part, value, cause) {
    if (!this.ties.listens(type, part)) return;
    const previous = type === "click" ? null : type === "blur" ? value : part.value;
    this.progress.queue.push({
      type,
      part,
      row: part.row,
      value,
      previous,
      by: "person",
      from: null,
      cause
    });
  }
  /** Writes what a person entered when its turn in the queue comes. */
  #commit(part, value, cause) {
    this.progress.queue.push(() => {
      const aspect2 = part.aspect("value");
      if (part.row?.removed === true || equal(aspect2.base, value)) return;
      this.progress.entered(() => this.state.setValue(aspect2, value, null));
      this.writing.enter(part, value, "person", cause);
    });
  }
};

// src/core/session/opened.ts
var Opened = class {
  #values = /* @__PURE__ */ new Map();
  note(fields) {
    this.#values = new Map(fields.map((part) => [part, part.value]));
  }
  /** The value of a field then; null before anything was opened. */
  valueOf(part) {
    return this.#values.get(part) ?? null;
  }
};

// src/core/session/journal.ts
var Journal = class {
  #undos = [];
  /** Notes how to undo what has just been done. */
  undoable(undo) {
    this.#undos.push(undo);
  }
  /** A point to go back to with `rollBack`. */
  mark() {
    return this.#undos.length;
  }
  /** Undoes everything since the mark, the newest first. */
  rollBack(mark) {
    const undos = this.#undos;
    while (undos.length > mark) undos.pop()();
  }
  /** Nothing of it will be undone any more. */
  forget() {
    if (this.#undos.length > 0) this.#undos = [];
  }
};

// src/core/session/progress.ts
var OF_FORM = { part: null, row: null, value: null, previous: null, from: null };
var Progress = class {
  journal = new Journal();
  /** Counts settlings: a step, and each continuation after a wait, which count their runs again. */
  number = 0;
  /** The opening is settling: nothing is cleared, and what came with the record may stay. */
  opening = false;
  /** First in, first out. */
  queue = [];
  messages = [];
  /** Not undone, as errors are not: what a run said about itself helps most when it failed. */
  logs = [];
  toParent = [];
  errors = [];
  outcome = null;
  /** A script asked for a submission, which follows as a step of its own. */
  submitWanted = false;
  /** What the person entered, to be entered again when all else is taken back. */
  #entered = [];
  /** What happens once the settling is over for good. */
  #after = [];
  /** Begins a settling that can be undone as one. */
  begin(opening) {
    this.number++;
    this.opening = opening;
    this.commit();
  }
  /** Nothing so far will be undone any more. */
  commit() {
    this.#entered = [];
    this.journal.forget();
    if (this.#after.length === 0) return;
    const after = this.#after;
    this.#after = [];
    for (const act of after) act();
  }
  /** Notes what a person entered: it stays even when scripts do not settle. */
  entered(again) {
    this.#entered.push(again);
  }
  /** Does something that cannot be undone once nothing will be. */
  onCommit(act) {
    this.#after.push(act);
    this.journal.undoable(() => {
      this.#after = this.#after.filter((other) => other !== act);
    });
  }
  message(message) {
    this.messages.push(message);
    this.journal.undoable(() => {
      this.messages = this.messages.filter((other) => other !== message);
    });
  }
  askParent(asked2) {
    this.toParent.push(asked2);
    this.journal.undoable(() => {
      this.toParent = this.toParent.filter((other) => other !== asked2);
    });
  }
  wantSubmit() {
    const before = this.submitWanted;
    this.submitWanted = true;
    this.journal.undoable(() => {
      this.submitWanted = before;
    });
  }
  setOutcome(outcome) {
    const before = this.outcome;
    this.outcome = outcome;
    this.journal.undoable(() => {
      this.outcome = before;
    });
  }
  /** Takes back everything scripts did since `begin`, and enters again what the person did. */
  takeBack() {
    this.queue.length = 0;
    this.journal.rollBack(0);
    for (const enter of this.#entered) enter();
  }
  /** What has been gathered for the answer; it begins again. */
  take() {
    const { messages, logs, toParent, errors, outcome } = this;
    this.messages = [];
    this.logs = [];
    this.toParent = [];
    this.errors = [];
    this.outcome = null;
    return { messages, logs, toParent, errors, outcome };
  }
};

// src/core/session/page-steps.ts
var PageSteps = class {
  constructor(state, situation, progress, settling, stopping, time4, pages, tape, checks2) {
    this.state = state;
    this.situation = situation;
    this.progress = progress;
    this.settling = settling;
    this.stopping = stopping;
    this.time = time4;
    this.pages = pages;
    this.tape = tape;
    this.checks = checks2;
  }
  state;
  situation;
  progress;
  settling;
  stopping;
  time;
  pages;
  tape;
  checks;
  /** Why it cannot be done, or null. */
  turnTo(name2, cause) {
    const to = this.state.parts.byName.get(name2);
    if (to === void 0 || to.sort !== "page") return `there is no page "${name2}"`;
    if (!to.onScreen) return `${to.label} is hidden`;
    const from = this.situation.page;
    if (from === to || from === null) return null;
    const forward = this.pages.all.indexOf(to) > this.pages.all.indexOf(from);
    if (!this.settling.settle(cause)) return null;
    if (forward && this.checks) {
      const faults2 = check(this.state, from);
      this.tape.add(cause, { type: "checked", faults: faults2 });
      if (faults2.length > 0) return null;
    }
    let stopped = false;
    this.progress.queue.push({
      ...OF_FORM,
      type: "pageChange",
      by: "person",
      cause,
      extra: { from: from.name, to: to.name },
      stop: (says, part, readsOf) => {
        stopped = true;
        if (part?.sort === "field") setFault(this.state, part, says, readsOf);
        else this.progress.message({ text: says, tone: "error", behaviour: "" });
      }
    });
    const inVain = this.settling.settle(cause) ? this.time.waitOut(cause) : "unsettled";
    this.stopping.end();
    if (inVain !== null && inVain !== "unsettled")
      this.progress.message({ text: inVain, tone: "error", behaviour: "" });
    if (inVain === null && !stopped) this.pages.turnTo(to, cause, null);
    return null;
  }
};

// src/core/session/pages.ts
var Pages = class {
  constructor(all, situation, tape, progress) {
    this.all = all;
    this.situation = situation;
    this.tape = tape;
    this.progress = progress;
  }
  all;
  situation;
  tape;
  progress;
  turnTo(page, cause, line2) {
    const from = this.situation.page;
    if (from === page) return;
    this.situation.page = page;
    this.progress.journal.undoable(() => {
      this.situation.page = from;
    });
    this.tape.add(cause, { type: "page", from: from?.name ?? null, to: page?.name ?? null, line: line2 });
  }
  /** The page one is on has been hidden: the form turns to the nearest shown one. */
  keep(cause) {
    const { page } = this.situation;
    if (page?.onScreen === true) return;
    const at = page === null ? 0 : this.all.indexOf(page);
    const distance = (other) => Math.abs(this.all.indexOf(other) - at);
    const nearest = this.all.filter((other) => other.onScreen).sort((a, b) => distance(a) - distance(b))[0] ?? null;
    this.turnTo(nearest, cause, null);
  }
};

// src/core/session/records.ts
var Records = class {
  constructor(state, situation, clock, tape, progress, settling, ties, running, waiting, corrections, opened, out, defaults) {
    this.state = state;
    this.situation = situation;
    this.clock = clock;
    this.tape = tape;
    this.progress = progress;
    this.settling = settling;
    this.ties = ties;
    this.running = running;
    this.waiting = waiting;
    this.corrections = corrections;
    this.opened = opened;
    this.out = out;
    this.defaults = defaults;
  }
  state;
  situation;
  clock;
  tape;
  progress;
  settling;
  ties;
  running;
  waiting;
  corrections;
  opened;
  out;
  defaults;
  /** Opens a record, or a new entry: base and record, `load` handlers, rules. */
  open(record) {
    const { parts } = this.state;
    this.situation.isNew = record === null;
    this.situation.record = record?.id ?? null;
    if (this.situation.viewing) {
      parts.form.aspect("locked").base = true;
      parts.nesting.version++;
    }
    for (const part of parts.fields)
      this.#begin(
        part,
        record === null ? this.defaults.of(part.field) : Object.hasOwn(record.values, part.name) ? record.values[part.name] : null
      );
    this.state.rebase();
    for (const part of parts.byName.values()) this.state.outdated.parts.add(part);
    this.#touchUnoffered();
    const entry = this.tape.add(null, {
      type: "opened",
      record: this.situation.record,
      person: this.situation.opening.person.key,
      clock: this.clock.now,
      values: valuesOf2(this.state)
    });
    const cause = entry?.n ?? null;
    for (const failure2 of this.out) this.tape.add(cause, { type: "error", failure: failure2 });
    this.progress.errors.push(...this.out);
    this.progress.begin(true);
    for (const rule of this.ties.rules) this.state.outdated.rules.add(rule);
    this.progress.queue.push({
      ...OF_FORM,
      type: "load",
      by: "form",
      cause
    });
    this.settling.settle(cause);
    this.opened.note(parts.fields);
    this.situation.page = parts.pages.find((page) => page.onScreen) ?? null;
  }
  /** Opens the next or the previous record: `load` fires for it, and nothing of the former one stays. Why not, or null. */
  turn(by, cause) {
    const records = this.situation.opening.records ?? [];
    const at = records.findIndex((record) => record.id === this.situation.record);
    const to = at < 0 ? void 0 : records[at + by];
    if (to === void 0) return by > 0 ? "there is no next record" : "there is no previous record";
    for (const run2 of this.waiting.runs) this.running.supersede(run2, "another record", cause);
    this.ties.leaveRecord();
    this.settling.failing.clear();
    this.corrections.forget();
    this.progress.queue.length = 0;
    this.progress.commit();
    this.state.reset();
    this.situation.focused = null;
    this.situation.typing = null;
    this.open(to);
    return null;
  }
  /** Keys in rows that are not offered have to be marked or dropped, though nobody has touched their cells. */
  #touchUnoffered() {
    for (const { rows: rows3 } of this.state.parts.fields) {
      if (rows3 === null) continue;
      for (const [name2, { field: field3 }] of rows3.columns) {
        if (!holdsKeys(field3)) continue;
        const around = { options: null, table: (table) => this.state.offers.table(table) };
        for (const row2 of rows3.list)
          if (!accept(row2.values[name2], field3, around).ok)
            this.state.outdated.parts.add(rows3.cell(row2, name2));
      }
    }
  }
  /** Gives a field the value a record or the definition brings, before anything runs. */
  #begin(part, offered2) {
    const { field: field3, rows: rows3 } = part;
    if (rows3 === null) {
      part.aspect("value").base = this.#firstValue(field3, offered2, part);
      return;
    }
    rows3.clear();
    const list2 = Array.isArray(offered2) ? offered2 : [];
    if (!Array.isArray(offered2) && offered2 !== null) this.state.strays.set(part, offered2);
    this.state.replaceRows(
      rows3,
      list2.map((row2) => rows3.make(this.#firstRow(rows3, row2)))
    );
  }
  #firstRow(rows3, offered2) {
    const row2 = {};
    for (const [name2, { field: field3 }] of rows3.columns)
      row2[name2] = this.#firstValue(
        field3,
        offered2 !== null && typeof offered2 === "object" && Object.hasOwn(offered2, name2) ? offered2[name2] : null,
        null
      );
    return row2;
  }
  /** What is no value of its kind is a stray where a part is given to keep it. */
  #firstValue(field3, offered2, keeper) {
    if (holdsKeys(field3) && (isList(field3) ? Array.isArray(offered2) && offered2.every((key) => typeof key === "string") : typeof offered2 === "string"))
      return offered2;
    const accepted = accept(offered2, field3, {
      options: null,
      table: (name2) => this.state.offers.table(name2)
    });
    if (!accepted.ok && keeper !== null) this.state.strays.set(keeper, offered2);
    return accepted.ok ? accepted.value : emptyOf(field3);
  }
};

// src/core/session/row-steps.ts
var RowSteps = class {
  constructor(state, progress, situation, writing, defaults) {
    this.state = state;
    this.progress = progress;
    this.situation = situation;
    this.writing = writing;
    this.defaults = defaults;
  }
  state;
  progress;
  situation;
  writing;
  defaults;
  add(name2, given, cause) {
    const part = reachable(this.state, this.situation, name2, "field");
    if (typeof part === "string") return part;
    const { rows: rows3 } = part;
    if (rows3 === null) return `${part.label} has no rows`;
    const field3 = part.field;
    const most = field3.maxRows ?? ROWS_PER_FIELD;
    if (rows3.list.length + given.length > most) return `${part.label} takes at most ${most} rows`;
    const defaults = this.defaults.ofCells(field3.fields);
    const read2 = [];
    for (const row2 of given) {
      const values = readRow(
        { ...defaults, ...row2 },
        field3,
        this.state.offers.surroundings(part),
        accept
      );
      if (typeof values === "string") return `${part.label} takes rows of its own cells; ${values}`;
      read2.push(values);
    }
    this.progress.queue.push(() => {
      const added = read2.map((values) => rows3.make(values));
      this.progress.entered(() => this.state.setRows(rows3, [...rows3.list, ...added]));
      this.writing.arrange(part, [...rows3.list, ...added], added, "added", "person", cause);
    });
    return null;
  }
  remove(name2, cause) {
    const part = reachable(this.state, this.situation, name2, "row");
    if (typeof part === "string") return part;
    const { rows: rows3 } = part.row;
    const without = () => rows3.list.filter((row2) => row2 !== part.row);
    this.progress.queue.push(() => {
      this.progress.entered(() => this.state.setRows(rows3, without()));
      this.writing.arrange(rows3.field, without(), [part.row], "removed", "person", cause);
    });
    return null;
  }
  /** `to` is the place it has then, from 0. */
  move(name2, to, cause) {
    const part = reachable(this.state, this.situation, name2, "row");
    if (typeof part === "string") return part;
    const row2 = part.row;
    const { rows: rows3 } = row2;
    if (to >= rows3.list.length)
      return `${rows3.field.label} has ${rows3.list.length} rows, so none can be moved to place ${to}`;
    this.progress.queue.push(() => {
      const moved = () => {
        const list2 = rows3.list.filter((other) => other !== row2);
        list2.splice(to, 0, row2);
        return list2;
      };
      this.progress.entered(() => this.state.setRows(rows3, moved()));
      if (row2.index !== to)
        this.writing.arrange(rows3.field, moved(), [row2], "moved", "person", cause);
    });
    return null;
  }
};

// src/core/session/tie.ts
var NOTHING_CLAIMED = /* @__PURE__ */ new Map();
function ruleOf({ number: number6, behaviour, title, line: line2, order: order2 }, row2) {
  return {
    sort: "rule",
    number: number6,
    behaviour,
    title,
    line: line2,
    order: order2,
    row: row2,
    claims: NOTHING_CLAIMED,
    reads: null,
    state: "new",
    ticket: 0,
    last: null,
    step: 0,
    runs: 0
  };
}

// src/core/session/run.ts
var Run = class {
  constructor(number6, tie, trigger, record, entry, open2) {
    this.number = number6;
    this.trigger = trigger;
    this.record = record;
    this.entry = entry;
    this.open = open2;
    this.handler = tie.sort === "handler" ? tie : null;
    this.rule = tie.sort === "rule" ? tie : null;
    const ofRule = tie.sort === "rule";
    this.writes = ofRule ? null : new Writes(record, entry?.n ?? null);
    this.#said = ofRule ? /* @__PURE__ */ new Map() : null;
    this.reads = ofRule ? /* @__PURE__ */ new Map() : null;
    this.noticed = entry === null ? null : { reads: this.reads ?? /* @__PURE__ */ new Map(), asked: /* @__PURE__ */ new Set() };
    this.noted = trigger.stops ? /* @__PURE__ */ new Set() : null;
  }
  number;
  trigger;
  record;
  entry;
  open;
  handler;
  rule;
  /** What a handler writes is in place at once; a rule's values wait. */
  writes;
  /** What a rule claims, gathered and put in place together at its end. */
  #said;
  /** What a rule read, with the values it saw; null for a handler. */
  reads;
  /** The same of whatever runs, and what it asked that is no aspect, for its entry; null where nothing is taped. */
  noticed;
  /** Parts that a handler read whose event can be stopped. */
  noted;
  messages = null;
  toParent = null;
  /** What a handler claimed, for when it is superseded. */
  claims = null;
  wantsSubmit = false;
  /** A wrong use stays a failure even where the script catches it, or whatever its end says. */
  fault = null;
  get said() {
    return this.#said ?? NOTHING_CLAIMED;
  }
  /** What a rule claims of an aspect; null takes it back. */
  claim(aspect2, claim2) {
    if (claim2 === null) this.#said.delete(aspect2);
    else this.#said.set(aspect2, claim2);
  }
  /** What is seen of an aspect when it is first read. */
  saw(aspect2, value) {
    const reads = this.reads ?? this.noticed?.reads;
    if (reads !== void 0 && !reads.has(aspect2)) reads.set(aspect2, value);
  }
};

// src/core/session/running.ts
var NOTHING3 = [];
var Running = class {
  constructor(state, tape, waiting, progress, ruleClaims, writing, current, scripts, desk) {
    this.state = state;
    this.tape = tape;
    this.waiting = waiting;
    this.progress = progress;
    this.ruleClaims = ruleClaims;
    this.writing = writing;
    this.current = current;
    this.scripts = scripts;
    this.desk = desk;
  }
  state;
  tape;
  waiting;
  progress;
  ruleClaims;
  writing;
  current;
  scripts;
  desk;
  /** Never given again, even after an undoing: the scripts' end may still know the run. */
  #numbers = 0;
  /** Runs a handler with its event, or a rule, and gives its result. */
  run(tie, given, trigger) {
    const because = trigger.row !== null && trigger.part === null ? trigger.row.part.name : trigger.part?.name ?? null;
    const record = {
      behaviour: tie.behaviour.title,
      line: tie.line,
      tie,
      because,
      before: trigger.before
    };
    const run2 = new Run(this.#numbers++, tie, trigger, record, this.#openEntry(tie, trigger), null);
    return this.#stretch(
      run2,
      tie,
      () => this.scripts.run(tie.number, run2.number, given, this.desk)
    );
  }
  /** Goes on with an open run after something it waited for has ended. */
  resume(open2, call, came, cause) {
    const { handler, record, title, part, row: row2 } = open2;
    const trigger = {
      title,
      part,
      row: row2,
      before: record.before,
      cause,
      stops: handler.event === "submit" || handler.event === "pageChange"
    };
    const run2 = new Run(
      open2.number,
      handler,
      trigger,
      record,
      this.#openEntry(handler, trigger),
      open2
    );
    return this.#stretch(
      run2,
      handler,
      () => this.scripts.resume(open2.number, call.order, came, this.desk)
    );
  }
  /** A handler starts again while an earlier run of it is open: the earlier one is not resumed. */
  supersede(open2, why, cause) {
    this.waiting.end(open2, "superseded");
    const { behaviour, line: line2 } = open2.handler;
    const entry = this.tape.add(cause, {
      type: "superseded",
      behaviour: behaviour.name,
      title: open2.title,
      line: line2,
      why
    });
    for (const [aspect2, { before, mine }] of open2.claims) {
      if (aspect2.handlerClaim !== mine) continue;
      const from = aspect2.current;
      this.state.putHandlerClaim(aspect2, before, open2.record);
      if (entry !== null && !equal(from, aspect2.current))
        this.tape.effect(entry.n, aspect2, from, aspect2.current, {
          by: "form",
          line: null,
          withdrawn: true
        });
    }
  }
  /** One atomic stretch: from the start or a wait to the next wait or the end. */
  #stretch(run2, tie, begin) {
    const { journal } = this.progress;
    const mark = journal.mark();
    const ended = this.current.during(run2, begin);
    const fault = ended.failure ?? (run2.fault === null ? null : { code: run2.fault.code, says: run2.fault.message });
    const failure2 = fault === null ? null : {
      code: fault.code,
      says: fault.says,
      behaviour: tie.behaviour.name,
      line: ended.line === 0 ? tie.line : ended.line
    };
    let events = NOTHING3;
    if (failure2 === null) {
      if (run2.rule === null) events = this.writing.told(run2.writes);
      else this.ruleClaims.settle(run2.rule, run2.said, run2.reads, run2.record, run2.entry?.n ?? null);
    } else {
      journal.rollBack(mark);
      if (run2.rule !== null) this.ruleClaims.remember(run2.rule, run2.reads);
    }
    this.#leave(run2, ended, failure2);
    this.#closeEntry(run2, ended, failure2);
    return { failure: failure2, events };
  }
  #leave(run2, ended, failure2) {
    if (run2.rule !== null) return;
    if (failure2 === null) this.#deliver(run2);
    if (failure2 === null && ended.open && run2.open === null) {
      const { title, part, row: row2 } = run2.trigger;
      run2.open = new OpenRun(run2.number, run2.handler, title, part, row2, run2.record);
    }
    const { open: open2 } = run2;
    if (open2 === null) {
      if (ended.open) this.scripts.drop(run2.number);
      return;
    }
    if (failure2 !== null) {
      this.waiting.end(open2, "failed");
      if (ended.failure === null) this.scripts.drop(run2.number);
      return;
    }
    for (const [aspect2, word] of run2.claims ?? [])
      open2.claims.set(aspect2, {
        before: open2.claims.get(aspect2)?.before ?? word.before,
        mine: word.mine
      });
    if (ended.open || open2.calls.size > 0) this.waiting.keep(open2);
    else this.waiting.end(open2, "ended");
  }
  #deliver(run2) {
    const entry = run2.entry?.n ?? null;
    for (const { message, line: line2 } of run2.messages ?? []) {
      this.progress.message(message);
      this.tape.add(entry, { type: "message", line: line2, ...message });
    }
    for (const { set, to, line: line2 } of run2.toParent ?? []) {
      this.progress.askParent({ set, to });
      this.tape.add(entry, { type: "toParent", set, to: forTape(to), line: line2 });
    }
    if (run2.wantsSubmit) this.progress.wantSubmit();
  }
  #openEntry(tie, { title, cause }) {
    if (!this.tape.on) return null;
    return this.tape.add(cause, {
      type: "run",
      sort: tie.sort,
      behaviour: tie.behaviour.name,
      title,
      line: tie.line,
      outcome: "ended",
      fuel: 0,
      reads: [],
      asked: [],
      lines: [],
      values: [],
      cut: false
    });
  }
  #closeEntry(run2, { fuel, trace }, failure2) {
    const { entry, open: open2 } = run2;
    if (entry === null) return;
    entry.fuel = fuel;
    const { reads = /* @__PURE__ */ new Map(), asked: asked2 = [] } = run2.noticed ?? {};
    entry.asked = [...asked2];
    entry.reads = [...reads].map(([aspect2, value]) => ({
      part: aspect2.part.name,
      aspect: aspect2.name,
      value: forTape(value)
    }));
    if (trace !== null) {
      entry.lines = trace.lines;
      entry.values = trace.values;
      entry.cut = trace.cut;
    }
    if (open2 !== null && open2.state === "open" && this.waiting.runs.includes(open2))
      entry.outcome = "open";
    if (failure2 === null) return;
    entry.outcome = "failed";
    this.tape.add(entry.n, { type: "error", failure: failure2 });
  }
};

// src/core/wire/line.ts
var MODULE_STEP = 1 << 20;
function lineFrom(place, modules) {
  const name2 = modules[Math.floor(place / MODULE_STEP) - 1];
  return name2 === void 0 ? place : `${name2}:${place % MODULE_STEP}`;
}
function placeOf(line2, behaviour) {
  if (typeof line2 === "number") return { script: behaviour, line: line2 };
  const colon = line2.lastIndexOf(":");
  return { script: line2.slice(0, colon), line: Number(line2.slice(colon + 1)) };
}
function lineInWords(line2) {
  if (typeof line2 === "number") return `line ${line2}`;
  const { script, line: at } = placeOf(line2, "");
  return `line ${at} of ${script}`;
}

// src/core/form/number-style.ts
var NUMBER_STYLES = ["point", "comma"];
var MARK = { point: ".", comma: "," };
var groupMarks = (style) => `[ '\u2019\xA0\u202F${style === "comma" ? "." : ","}]`;
var patterns = Object.fromEntries(
  NUMBER_STYLES.map((style) => {
    const group = groupMarks(style);
    const decimals = `(?:\\${MARK[style]}\\d*)?`;
    return [
      style,
      {
        group: new RegExp(group, "g"),
        // Digits alone, or groups of three after a first of one to three; then decimals, and a power of ten.
        number: new RegExp(
          `^[-+]?(?:\\d+${decimals}|\\d{1,3}(?:${group}\\d{3})+${decimals}|\\${MARK[style]}\\d+)(?:[eE][-+]?\\d+)?$`
        )
      }
    ];
  })
);
function readNumber(text3, style) {
  const bare3 = text3.trim().replaceAll("\u2212", "-");
  const { group, number: number6 } = patterns[style];
  if (!number6.test(bare3)) return null;
  const read2 = Number(bare3.replace(group, "").replace(MARK[style], "."));
  return Number.isFinite(read2) ? read2 : null;
}
function readTypedNumber(text3, style) {
  return readNumber(text3, style) ?? readNumber(text3, style === "point" ? "comma" : "point");
}

// src/core/form/scalar.ts
var SCALAR_KINDS = ["text", "number", "date", "yes_no"];
var ANSWERS = /* @__PURE__ */ new Map([
  ["yes", true],
  ["true", true],
  ["no", false],
  ["false", false]
]);
var SCALARS = {
  text: {
    label: "text",
    takes: "a text",
    typed: "a text",
    type: "string",
    holds: (value) => typeof value === "string",
    read: (text3) => text3
  },
  number: {
    label: "number",
    takes: "a finite number",
    typed: "a number",
    type: "number",
    holds: (value) => typeof value === "number" && Number.isFinite(value),
    read: (text3, numbers) => readTypedNumber(text3, numbers) ?? void 0
  },
  date: {
    label: "date",
    takes: "a date spelled YYYY-MM-DD",
    typed: "a date spelled YYYY-MM-DD",
    type: "string",
    holds: (value) => typeof value === "string" && isDate(value),
    read: (text3) => isDate(text3.trim()) ? text3.trim() : void 0
  },
  yes_no: {
    label: "yes or no",
    takes: "true or false",
    typed: "yes or no",
    type: "boolean",
    holds: (value) => typeof value === "boolean",
    read: (text3) => ANSWERS.get(text3.trim().toLowerCase())
  }
};
var SCALAR_OPTIONS = SCALAR_KINDS.map(
  (key) => ({ key, label: SCALARS[key].label })
);

// src/core/session/services.ts
var Services = class {
  constructor(services, state, scripts, moods) {
    this.state = state;
    this.scripts = scripts;
    this.moods = moods;
    this.#all = new Map(services.map((service) => [service.name, service]));
  }
  state;
  scripts;
  moods;
  #all;
  /** Calls of each service in this session, for those that are slow at times. */
  #calls = /* @__PURE__ */ new Map();
  /** Takes a call. Throws ScriptError for a service or function that is not there and for arguments it does not take. */
  ask(serviceName, called, offered2) {
    const service = this.#all.get(serviceName);
    if (service === void 0)
      throw new ScriptError("wrong_use", words.noService(serviceName, null));
    const definition = Object.hasOwn(service.functions, called) ? service.functions[called] : null;
    if (definition === null)
      throw new ScriptError(
        "wrong_use",
        words.noFunction(serviceName, called, Object.keys(service.functions))
      );
    const name2 = `${serviceName}.${called}`;
    const args = readArguments(name2, definition, offered2);
    const calls = (this.#calls.get(service.name) ?? 0) + 1;
    this.#calls.set(service.name, calls);
    const mood = { ...this.moods[service.name], ...this.moods[name2] };
    const usual = definition.delay ?? service.delay ?? USUAL_DELAY;
    const delay = service.slow !== void 0 && calls % service.slow.every === 0 ? service.slow.delay : usual;
    const fails = mood.fails ?? service.fails;
    return {
      name: name2,
      args,
      delay: mood.byHand === true ? Infinity : mood.delay ?? delay,
      outcome: () => fails === void 0 ? this.#answer(name2, definition, args) : { ok: false, reason: fails }
    };
  }
  #answer(name2, { answers: answers2 }, args) {
    if (answers2.from === "table") {
      const conditions2 = Object.entries(answers2.where);
      const fits2 = (row2) => conditions2.every(([column, parameter]) => row2[column] === args[parameter]);
      const { rows: rows3 } = this.state.offers.table(answers2.table);
      return {
        ok: true,
        value: answers2.many === true ? Object.freeze(rows3.filter(fits2)) : rows3.find(fits2) ?? null
      };
    }
    const came = this.scripts.answer(name2, args);
    if (came === null) return { ok: false, reason: "its script does not run" };
    return came.ok ? { ok: true, value: deepFreeze(came.value) } : { ok: false, reason: `its script failed in ${lineInWords(came.line)}` };
  }
};
function readArguments(name2, definition, offered2) {
  const { parameters } = definition;
  const wrong = (says) => {
    throw new ScriptError("wrong_value", words.wrongArguments(name2, says));
  };
  const list2 = parameters.map((parameter) => parameter.name).join(", ");
  if (offered2 !== void 0 && (typeof offered2 !== "object" || offered2 === null || Array.isArray(offered2)))
    return wrong(`takes { ${list2} }, not ${inWords(offered2)}.`);
  const given = offered2 ?? {};
  const unknown2 = Object.keys(given).find(
    (key) => !parameters.some((parameter) => parameter.name === key)
  );
  if (unknown2 !== void 0) return wrong(`has no parameter "${unknown2}". It has ${list2}.`);
  const args = {};
  for (const { name: parameter, kind, optional: optional2 } of parameters) {
    const value = (Object.hasOwn(given, parameter) ? given[parameter] : null) ?? null;
    const { takes, holds } = SCALARS[kind];
    if (value === null ? optional2 !== true : !holds(value))
      return wrong(`takes ${takes} as ${parameter}, not ${inWords(value)}.`);
    args[parameter] = value;
  }
  return args;
}

// src/core/session/settling.ts
var NoRest = class {
  constructor(failure2) {
    this.failure = failure2;
  }
  failure;
};
var NOTHING4 = { is: "nothing" };
var Settling = class {
  constructor(state, running, ruleClaims, tape, waiting, progress, ties, corrections, stopping, limit) {
    this.state = state;
    this.running = running;
    this.ruleClaims = ruleClaims;
    this.tape = tape;
    this.waiting = waiting;
    this.progress = progress;
    this.ties = ties;
    this.corrections = corrections;
    this.stopping = stopping;
    this.limit = limit;
  }
  state;
  running;
  ruleClaims;
  tape;
  waiting;
  progress;
  ties;
  corrections;
  stopping;
  limit;
  /** Handlers and rules whose last run failed; not undone, since a step that is taken back does not mend them. */
  failing = /* @__PURE__ */ new Map();
  /**
   * Settles until events and rules are still. False when they did not settle: then everything scripts did since the
   * settling began has been taken back.
   */
  settle(cause) {
    try {
      this.#untilStill(cause);
      this.#rest();
      return true;
    } catch (caught) {
      if (!(caught instanceof NoRest)) throw caught;
      this.progress.takeBack();
      this.ruleClaims.forget();
      this.state.outdated.rules.clear();
      this.progress.errors.push(caught.failure);
      const error2 = this.tape.add(cause, { type: "error", failure: caught.failure });
      this.tape.add(error2?.n ?? null, {
        type: "takenBack",
        what: "everything scripts did in this step"
      });
      this.#rest();
      return false;
    }
  }
  #untilStill(cause) {
    const { queue } = this.progress;
    for (; ; ) {
      const item = queue.shift();
      if (item !== void 0) {
        if (typeof item === "function") item();
        else this.#dispatch(item);
        continue;
      }
      const rule = this.#nextRule();
      if (rule !== null) {
        this.#runRule(rule, cause);
        continue;
      }
      const events = this.ruleClaims.putValues();
      if (events !== null) {
        queue.push(...events);
        continue;
      }
      if (!this.corrections.correct(cause)) return;
    }
  }
  #rest() {
    this.corrections.rest();
    this.progress.opening = false;
  }
  #dispatch(event) {
    const handlers = this.ties.handlers(event.type, event.part);
    if (handlers === null) return;
    const { part, row: row2, type, from } = event;
    const name2 = part === null ? null : part.name;
    const entry = !this.tape.on ? null : this.tape.add(event.cause, {
      type: "event",
      event: type,
      part: name2,
      value: forTape(event.value),
      previous: forTape(event.previous),
      by: event.by
    });
    const cause = entry?.n ?? null;
    const stops2 = event.stop === void 0 ? 0 : this.stopping.begin(event);
    for (const handler of handlers) {
      const isEndless = type === "rowAdded" && isOwnDoing(handler, from);
      this.#count(handler, isEndless ? null : row2, name2, from);
      const earlier = handler.overlap === "all" ? null : this.waiting.earlier(handler, part, row2);
      if (earlier !== null) this.running.supersede(earlier, "started again", cause);
      const title = name2 === null ? type : `${type} of ${name2}`;
      const result = this.running.run(
        handler,
        { is: "event", event, stops: stops2 },
        { title, part, row: row2, before: from, cause, stops: stops2 > 0 }
      );
      this.#after(handler, result);
      if (result.failure !== null)
        event.stop?.(
          `${handler.behaviour.title} failed${result.failure.line === null ? "" : `, ${lineInWords(result.failure.line)}`}.`,
          null,
          /* @__PURE__ */ new Set()
        );
    }
  }
  /** Goes on with the run that waited for this call, with what it comes to or with what somebody answers instead. */
  resume(call, cause, instead = null) {
    const { run: run2 } = call;
    const came = instead ?? call.outcome();
    this.waiting.answered(call);
    const entry = this.tape.add(cause ?? call.entry, {
      type: "answered",
      call: call.entry,
      name: call.name,
      with: came.ok ? forTape(came.value) : null,
      fails: came.ok ? null : came.reason,
      clock: call.due
    });
    this.#after(run2.handler, this.running.resume(run2, call, came, entry?.n ?? cause));
  }
  #nextRule() {
    const { rules } = this.state.outdated;
    for (let rule = rules.first(); rule !== null; rule = rules.first()) {
      if (rule.state !== "stirred" || differing(rule) !== null) return rule;
      rules.delete(rule);
    }
    return null;
  }
  #runRule(rule, cause) {
    const trigger = differing(rule);
    this.state.outdated.rules.delete(rule);
    const because = trigger?.part.name ?? null;
    const before = trigger?.changedBy ?? null;
    this.#count(rule, null, because, before);
    const { row: row2 } = rule;
    const result = this.running.run(rule, row2 === null ? NOTHING4 : { is: "row", row: row2 }, {
      title: rule.title,
      part: trigger?.part ?? null,
      row: row2,
      before,
      cause,
      stops: false
    });
    if (differing(rule) === null) this.state.outdated.rules.delete(rule);
    else this.state.outdated.rules.add(rule);
    this.#after(rule, result);
  }
  #after(tie, { failure: failure2, events }) {
    if (failure2 !== null) {
      this.failing.set(tie, failure2);
      this.progress.errors.push(failure2);
    } else this.failing.delete(tie);
    if (events.length > 0) this.progress.queue.push(...events);
  }
  #count(tie, row2, because, before) {
    const { number: number6 } = this.progress;
    if (tie.step !== number6) {
      tie.step = number6;
      tie.runs = 0;
      if (tie.sort === "handler") tie.rowRuns = null;
    }
    if (tie.sort === "handler" && row2 !== null) {
      tie.rowRuns ??= /* @__PURE__ */ new Map();
      const runs = (tie.rowRuns.get(row2) ?? 0) + 1;
      tie.rowRuns.set(row2, runs);
      if (runs <= this.limit) return;
    } else if (++tie.runs <= this.limit) return;
    throw new NoRest({
      code: "cycle",
      says: words.cycle(this.limit),
      behaviour: tie.behaviour.name,
      line: tie.line,
      cycle: roundOf(tie, because, before)
    });
  }
};
var ROUND = 20;
function isOwnDoing(tie, before) {
  let run2 = before;
  for (let i = 0; run2 !== null && i < ROUND; i++, run2 = run2.before)
    if (run2.tie === tie) return true;
  return false;
}
function roundOf(tie, because, before) {
  const round2 = [];
  let part = because;
  for (let run2 = before; run2 !== null && round2.length < ROUND; run2 = run2.before) {
    round2.unshift(`${run2.behaviour} (${lineInWords(run2.line)}) set ${part ?? "something"}`);
    if (run2.tie === tie) break;
    part = run2.because;
  }
  return round2;
}

// src/core/session/situation.ts
var Situation = class {
  constructor(opening) {
    this.opening = opening;
    this.newId = opening.newId;
  }
  opening;
  isNew = true;
  /** The id that a new record is saved under. */
  newId;
  /** The record that is open; null for a new entry that is not saved yet. */
  record = null;
  page = null;
  focused = null;
  /** What is typed and not yet committed. */
  typing = null;
  /** `submit` handlers are running or waited for. */
  submitting = false;
  get viewing() {
    return this.opening.viewing === true;
  }
};

// src/core/form/table-index.ts
var kept = /* @__PURE__ */ new WeakMap();
function indexOf(table) {
  let index = kept.get(table);
  if (index === void 0) kept.set(table, index = indexTable(table));
  return index;
}
function indexTable(table) {
  for (const row2 of table.rows) deepFreeze(row2);
  let byKey;
  let options;
  const optionOf = (row2) => Object.freeze({
    key: String(row2[table.key]),
    label: String(row2[table.label] ?? row2[table.key])
  });
  return {
    table,
    rows: table.rows,
    find(key) {
      byKey ??= new Map(table.rows.map((row2) => [String(row2[table.key]), row2]));
      return byKey.get(key) ?? null;
    },
    get options() {
      return options ??= Object.freeze(table.rows.map(optionOf));
    },
    optionOf
  };
}

// src/core/session/offers.ts
var Offers = class {
  #tables;
  constructor(tables) {
    this.#tables = new Map(tables.map((table) => [table.name, indexOf(table)]));
  }
  /** A row of reference data; null for a table or key that is not there. */
  row(table, key) {
    return this.#tables.get(table)?.find(key) ?? null;
  }
  /** The option that a row stands for, whichever table it is of; null for what is no row. */
  optionOfRow(item) {
    for (const table of this.#tables.values()) {
      const row2 = table.find(String(item[table.table.key]));
      if (row2 === item) return table.optionOf(row2);
    }
    return null;
  }
  table(name2) {
    return this.#tables.get(name2);
  }
  surroundings(part) {
    return {
      options: part.now("options"),
      table: (name2) => this.table(name2)
    };
  }
  /** The options of a choice or reference as seen now: those a script set, else those of the definition. */
  optionsOf(field3, set) {
    if (set !== null) return set;
    return holdsKeys(field3) ? definedOptions(field3, (name2) => this.table(name2)) : null;
  }
  isOffered(part, value) {
    return this.notOffered(part, value).length === 0;
  }
  /** The keys of a value that are not among the options now. */
  notOffered(part, value) {
    const { field: field3 } = part;
    if (value === null || !holdsKeys(field3)) return [];
    const set = part.now("options");
    const keys = Array.isArray(value) ? value : [value];
    if (set === null && field3.kind === "reference")
      return keys.filter((key) => this.table(field3.table).find(key) === null);
    const options = this.optionsOf(field3, set);
    return keys.filter((key) => !options.some((option2) => option2.key === key));
  }
};

// src/core/session/stirred.ts
var Stirred = class {
  /** By order. */
  #queues = [];
  /** Not undone: tickets only tell an earlier turn from a later one. */
  #tickets = 0;
  add(rule) {
    if (rule.state === "rests") rule.state = "stirred";
    if (rule.ticket !== 0) return;
    const queue = this.#queueOf(rule.order);
    rule.ticket = ++this.#tickets;
    queue.rules.push(rule);
    queue.tickets.push(rule.ticket);
  }
  #queueOf(order2) {
    for (const queue2 of this.#queues) if (queue2.order === order2) return queue2;
    const queue = { order: order2, rules: [], tickets: [], head: 0 };
    this.#queues = [...this.#queues, queue].sort((a, b) => a.order - b.order);
    return queue;
  }
  /** It has had its turn, or needs none. */
  delete(rule) {
    rule.ticket = 0;
    rule.state = "rests";
  }
  clear() {
    for (const { rules } of this.#queues) for (const rule of rules) this.delete(rule);
    this.#queues = [];
  }
  /** The first in order, of one order the one that was stirred first; null when none waits. */
  first() {
    for (const queue of this.#queues) {
      const { rules, tickets } = queue;
      while (queue.head < rules.length) {
        const rule = rules[queue.head];
        if (rule.ticket === tickets[queue.head]) return rule;
        queue.head++;
      }
      if (queue.head > 0) {
        rules.length = 0;
        tickets.length = 0;
        queue.head = 0;
      }
    }
    return null;
  }
};

// src/core/session/outdated.ts
var Outdated = class {
  constructor(all) {
    this.all = all;
  }
  all;
  /** Rules that read something which was touched; whether it really differs is asked at their turn. */
  rules = new Stirred();
  /** Parts whose state may differ from what was reported. */
  parts = /* @__PURE__ */ new Set();
  /** Rules that read an aspect run again, if it differs at their turn. */
  stirReaders(aspect2) {
    if (aspect2.readers !== null) for (const rule of aspect2.readers) this.rules.add(rule);
  }
  /** An aspect changed: whoever read it, and whatever is shown or hidden with it. */
  stir(aspect2) {
    this.stirReaders(aspect2);
    const nests = aspect2.name === "shown" || aspect2.name === "locked";
    if (nests) this.all.nesting.version++;
    this.#touchWithin(aspect2.part, nests);
  }
  #touchWithin(part, nests) {
    if (part.row?.removed === true) return;
    this.parts.add(part);
    if (!nests) return;
    for (const child of part.children ?? []) this.#touchWithin(child, true);
    if (part.rows !== null) for (const row2 of part.rows.list) this.#touchCleared(row2);
    else if (part.sort === "row") this.#touchCleared(part.row);
  }
  #touchCleared(row2) {
    for (const [name2, { field: field3 }] of row2.rows.columns)
      if (field3.whenHidden === "clear") this.parts.add(row2.rows.cell(row2, name2));
  }
};

// src/core/session/state.ts
var State = class {
  constructor(form2, tables, journal, fits2) {
    this.journal = journal;
    this.fits = fits2;
    this.parts = partsOf(form2);
    this.offers = new Offers(tables);
    this.outdated = new Outdated(this.parts);
  }
  journal;
  fits;
  parts;
  offers;
  /** What has to be looked at again because of what changed. */
  outdated;
  /** The values as opened or saved, against which `changed` is judged. */
  initial = /* @__PURE__ */ new Map();
  /** Values before the last change. */
  previous = /* @__PURE__ */ new Map();
  /** Fields whose value came with the record and is not offered. */
  orphans = /* @__PURE__ */ new Set();
  /** What a record brought that is no value of its field's kind any more: empty for scripts, saved again as it is. */
  strays = /* @__PURE__ */ new Map();
  /** Faults found by the last check, by field, until mended; those a script stopped at stay until the value changes. */
  faults = /* @__PURE__ */ new Map();
  #differing = /* @__PURE__ */ new Set();
  /** The value as opened or saved; null for a cell of a row that came since. */
  initialOf(part) {
    const { row: row2, rows: rows3 } = part;
    if (row2 !== null) return row2.initial?.[part.field.name] ?? null;
    return rows3 === null ? this.initial.get(part) ?? null : Object.freeze([...rows3.initial.values]);
  }
  get changed() {
    return this.#differing.size > 0;
  }
  /** Writes a value slot. `by` is the run to blame, or null for persons and the form. Whole rows are written row by row. */
  setValue(aspect2, value, by) {
    const { part, base: before, changedBy } = aspect2;
    const { row: row2 } = part;
    const rowBefore = row2?.values;
    const wasOrphan = this.orphans.has(part);
    const stray = this.strays.get(part);
    const previous = this.previous.get(part);
    this.journal.undoable(() => {
      aspect2.base = before;
      aspect2.changedBy = changedBy;
      if (row2 !== null) row2.values = rowBefore;
      if (wasOrphan) this.orphans.add(part);
      if (stray !== void 0) this.strays.set(part, stray);
      if (previous === void 0) this.previous.delete(part);
      else this.previous.set(part, previous);
      this.#valueChanged(aspect2);
    });
    aspect2.base = value;
    aspect2.changedBy = by;
    if (row2 !== null) row2.values = Object.freeze({ ...row2.values, [part.field.name]: value });
    this.previous.set(part, before);
    if (wasOrphan) this.orphans.delete(part);
    if (stray !== void 0) this.strays.delete(part);
    if (this.faults.size > 0) this.#dropStops(part);
    this.#valueChanged(aspect2);
  }
  /** Where a script stopped on a part, the stop goes when that part, or one that the handler had read, changes. */
  #dropStops(changed) {
    const whole = changed.row?.rows.field;
    for (const [part, fault] of this.faults) {
      const { readsOf } = fault;
      if (readsOf === null || !(part === changed || readsOf.has(changed) || whole !== void 0 && readsOf.has(whole)))
        continue;
      this.faults.delete(part);
      this.outdated.parts.add(part);
      this.journal.undoable(() => this.faults.set(part, fault));
    }
  }
  #valueChanged(aspect2) {
    const { part } = aspect2;
    const { row: row2 } = part;
    this.outdated.stir(aspect2);
    if (row2 === null) {
      this.#judgeChanged(part, () => !equal(aspect2.base, this.initial.get(part) ?? null));
      return;
    }
    const { values } = row2.part.aspects;
    if (values !== void 0) this.outdated.stirReaders(values);
    for (const derived3 of row2.rows.changed(part.field.name)) this.outdated.stirReaders(derived3);
    if (!row2.removed) this.outdated.parts.add(row2.part);
    this.#judgeChanged(row2.rows.field, () => row2.rows.differs(row2));
  }
  /** Puts rows in another order, with some new or gone; each knows by itself whether it is still there. */
  setRows(rows3, list2) {
    const before = rows3.list;
    this.journal.undoable(() => this.replaceRows(rows3, before));
    this.replaceRows(rows3, list2);
    if (this.faults.size > 0) this.#dropStops(rows3.field);
  }
  /** The same without a way back: rows as a record brings them. */
  replaceRows(rows3, list2) {
    const { list: before } = rows3;
    rows3.list = list2;
    for (const row2 of before) row2.here = false;
    for (const row2 of list2) {
      if (row2.removed) this.#arrive(rows3, row2);
      row2.here = true;
    }
    for (const row2 of before) if (!row2.here) this.#leave(row2);
    for (const derived3 of rows3.changed(null)) this.outdated.stirReaders(derived3);
    this.outdated.parts.add(rows3.field);
    this.#judgeChanged(rows3.field, () => rows3.differs(null));
  }
  #arrive(rows3, row2) {
    row2.removed = false;
    row2.rules = rows3.each.map(
      ({ made }) => row2.rules.find((rule) => rule.order === made.order) ?? ruleOf(made, row2)
    );
    for (const rule of row2.rules) {
      for (const aspect2 of rule.reads?.keys() ?? []) aspect2.readBy(rule);
      this.outdated.rules.add(rule);
    }
    this.outdated.parts.add(row2.part);
    for (const cell of row2.cells.values()) this.outdated.parts.add(cell);
  }
  /** Nothing of a removed row is asked, checked or told any more; undoing brings it back as it was. */
  #leave(row2) {
    row2.removed = true;
    row2.told = { values: null, state: {} };
    for (const rule of row2.rules) {
      this.outdated.rules.delete(rule);
      for (const aspect2 of rule.reads?.keys() ?? []) aspect2.readers?.delete(rule);
    }
    this.outdated.parts.delete(row2.part);
    for (const cell of row2.cells.values()) {
      cell.told = NOTHING_TOLD;
      this.outdated.parts.delete(cell);
      this.faults.delete(cell);
    }
  }
  /** Puts a word as it was boxed before, which is how what a superseded run said is taken back. */
  putHandlerClaim(aspect2, word, by) {
    const { handlerClaim: before, changedBy } = aspect2;
    this.journal.undoable(() => {
      aspect2.handlerClaim = before;
      aspect2.changedBy = changedBy;
      this.outdated.stir(aspect2);
    });
    aspect2.handlerClaim = word;
    aspect2.changedBy = by;
    this.outdated.stir(aspect2);
  }
  /** Puts a rule's word, or takes it back with null. */
  setRuleClaim(aspect2, rule, word, by) {
    const { ruleClaims: before, changedBy } = aspect2;
    this.journal.undoable(() => {
      aspect2.ruleClaims = before;
      aspect2.changedBy = changedBy;
      this.outdated.stir(aspect2);
    });
    aspect2.ruleClaims = aspect2.withClaim(rule, word);
    aspect2.changedBy = by;
    this.outdated.stir(aspect2);
  }
  /** Another record is opened: nothing of the former one stays. */
  reset() {
    this.outdated.rules.clear();
    for (const kept2 of [
      this.initial,
      this.previous,
      this.orphans,
      this.strays,
      this.faults,
      this.#differing
    ])
      kept2.clear();
    for (const part of this.parts.byName.values()) part.reset();
    this.parts.nesting.version++;
  }
  /** Values as now are the record's: nothing is changed. */
  rebase() {
    for (const part of this.parts.fields) {
      if (part.rows === null) this.initial.set(part, part.aspect("value").base);
      else part.rows.rebase();
    }
    this.#differing.clear();
    this.#setChanged(false);
  }
  #judgeChanged(part, differs) {
    const before = this.#differing.size > 0;
    if (differs()) this.#differing.add(part);
    else this.#differing.delete(part);
    if (before !== this.#differing.size > 0) this.#setChanged(!before);
  }
  #setChanged(changed) {
    const aspect2 = this.parts.form.aspect("changed");
    aspect2.base = changed;
    this.outdated.stir(aspect2);
  }
};

// src/core/session/stopping.ts
var Stopping = class {
  #under = /* @__PURE__ */ new Map();
  /** Never given again, even after an undoing: a script may have kept its event. */
  #numbers = 0;
  /** The event can be stopped from now on, under this number. */
  begin(event) {
    const number6 = ++this.#numbers;
    this.#under.set(number6, event);
    return number6;
  }
  /** Stops it. False when it is over, or there is none. */
  stop(number6, says, part, readsOf) {
    const event = this.#under.get(number6);
    event?.stop(says, part, readsOf);
    return event !== void 0;
  }
  /** What was under way is decided. */
  end() {
    this.#under.clear();
  }
};

// src/core/session/submitting.ts
var UNSETTLED = {
  part: null,
  says: "The behaviours of this form kept changing values and did not settle."
};
var Submitting = class {
  constructor(state, situation, progress, settling, stopping, time4, tape) {
    this.state = state;
    this.situation = situation;
    this.progress = progress;
    this.settling = settling;
    this.stopping = stopping;
    this.time = time4;
    this.tape = tape;
  }
  state;
  situation;
  progress;
  settling;
  stopping;
  time;
  tape;
  /** Why it cannot be done, or null; whether it was saved is the outcome. */
  submit(cause) {
    if (this.situation.viewing) return VIEWING;
    const stops2 = [];
    if (!this.settling.settle(cause)) stops2.push(UNSETTLED);
    else if (this.#isReplaced())
      return "the form has been replaced by a message and cannot be submitted";
    else if (this.#waited(stops2, cause)) {
      if (this.#isReplaced())
        return "the form has been replaced by a message and cannot be submitted";
      this.#forgetFaults();
      stops2.push(...this.#check(cause));
      if (stops2.length === 0) this.#askHandlers(stops2, cause);
    }
    if (stops2.length > 0) {
      this.#finish(false, stops2, cause);
      return null;
    }
    this.situation.record ??= this.situation.newId;
    this.#finish(true, stops2, cause);
    this.state.rebase();
    this.progress.commit();
    this.progress.queue.push({
      ...OF_FORM,
      type: "saved",
      by: "form",
      cause,
      extra: { id: this.situation.record }
    });
    this.settling.settle(cause);
    this.situation.isNew = false;
    return null;
  }
  #isReplaced() {
    return this.state.parts.form.now("replaced") !== null;
  }
  /** Runs the handlers that may stop it; each stop is noted. */
  #askHandlers(stops2, cause) {
    const before = valuesOf2(this.state);
    this.situation.submitting = true;
    this.progress.queue.push({
      ...OF_FORM,
      type: "submit",
      by: "person",
      cause,
      stop: (says, part, readsOf) => {
        stops2.push({ part: part?.address ?? null, says });
        if (part?.sort === "field") setFault(this.state, part, says, readsOf);
      }
    });
    if (!this.settling.settle(cause)) stops2.push(UNSETTLED);
    this.#waited(stops2, cause);
    this.stopping.end();
    this.situation.submitting = false;
    if (stops2.length === 0 && !equal(before, valuesOf2(this.state)))
      stops2.push(...this.#check(cause));
  }
  #waited(stops2, cause) {
    const inVain = this.time.waitOut(cause);
    if (inVain !== null) stops2.push({ part: null, says: inVain });
    return inVain === null;
  }
  #forgetFaults() {
    for (const part of this.state.faults.keys()) this.state.outdated.parts.add(part);
    this.state.faults.clear();
    for (const part of this.state.parts.fields) this.state.outdated.parts.add(part);
  }
  #check(cause) {
    const faults2 = check(this.state, null);
    this.tape.add(cause, { type: "checked", faults: faults2 });
    return faults2;
  }
  #finish(saved3, stops2, cause) {
    const outcome = {
      saved: saved3,
      stoppedBy: stops2[0]?.part ?? null,
      stops: stops2,
      id: saved3 ? this.situation.record : null,
      ...submittedValues(this.state)
    };
    this.progress.setOutcome(outcome);
    this.tape.add(cause, { type: "outcome", ...outcome });
  }
};

// src/core/session/ties.ts
function keyOf2(type, part) {
  if (part === null) return type;
  return part.row === null || part.sort === "row" ? `${type}:${part.name}` : columnKey(type, part.row.rows.field.name, part.field.name);
}
function columnKey(type, rows3, column) {
  return `${type}:${rows3}.${column}`;
}
var byOrder = (a, b) => a.order - b.order;
function withOne(list2, one) {
  const last = list2.at(-1);
  return last === void 0 || last.order <= one.order ? [...list2, one] : [...list2, one].sort(byOrder);
}
function handlerOf({ is, ...tied }) {
  return { sort: is, ...tied, rowRuns: null, step: 0, runs: 0 };
}
var Ties = class {
  constructor(state, progress, tied) {
    this.state = state;
    this.progress = progress;
    const handlers = /* @__PURE__ */ new Map();
    const rules = [];
    for (const one of tied) {
      if (one.is === "rule") this.#addRule(one, (rule) => rules.push(rule));
      else {
        const handler = handlerOf(one);
        for (const key of new Set(one.keys))
          handlers.set(key, handlers.get(key) ?? []).get(key).push(handler);
      }
    }
    for (const [key, list2] of handlers) this.#handlers.set(key, list2.sort(byOrder));
    this.#rules = rules.sort(byOrder);
  }
  state;
  progress;
  #handlers = /* @__PURE__ */ new Map();
  #rules = [];
  /** Made while a record was loaded, so they end with that record. */
  #ofRecord = /* @__PURE__ */ new Set();
  listens(type, part) {
    return this.#handlers.size > 0 && this.#handlers.has(keyOf2(type, part));
  }
  /** The handlers of an event, in the order in which they run. */
  handlers(type, part) {
    return this.#handlers.get(keyOf2(type, part)) ?? null;
  }
  /** The rules that are for no row. */
  get rules() {
    return this.#rules;
  }
  /** All rules, those for each row too. */
  *all() {
    yield* this.#rules;
    for (const rows3 of this.#rowsFields()) for (const row2 of rows3.list) yield* row2.rules;
  }
  add(tied, ofRecord) {
    const { journal } = this.progress;
    if (ofRecord) {
      this.#ofRecord.add(tied.number);
      journal.undoable(() => this.#ofRecord.delete(tied.number));
    }
    if (tied.is === "handler") {
      const handler = handlerOf(tied);
      for (const key of new Set(tied.keys)) this.#tie(key, handler);
      return;
    }
    this.#addRule(tied, (rule) => {
      this.#rules = withOne(this.#rules, rule);
      journal.undoable(() => {
        this.#rules = this.#rules.filter((one) => one !== rule);
        this.state.outdated.rules.delete(rule);
      });
    });
  }
  /** A rule for each row goes to the rows it is for, any other to `put`. */
  #addRule(made, put) {
    if (made.rows !== null)
      return this.#addEach(this.state.parts.byName.get(made.rows).rows, made);
    const rule = ruleOf(made, null);
    this.state.outdated.rules.add(rule);
    put(rule);
  }
  #addEach(rows3, made) {
    const added = { rows: rows3, made };
    rows3.each = [...rows3.each, added];
    for (const row2 of rows3.list) this.#addTo(row2, made);
    this.progress.journal.undoable(() => {
      rows3.each = rows3.each.filter((one) => one !== added);
    });
  }
  #addTo(row2, made) {
    const rule = ruleOf(made, row2);
    row2.rules = [...row2.rules, rule];
    this.state.outdated.rules.add(rule);
    this.progress.journal.undoable(() => {
      row2.rules = row2.rules.filter((one) => one !== rule);
      this.state.outdated.rules.delete(rule);
    });
  }
  /** Unties the handler of this number, if there is one. */
  untie(number6) {
    for (const [key, list2] of this.#handlers) {
      const handler = list2.find((one) => one.number === number6);
      if (handler !== void 0) this.#untie(key, handler);
    }
  }
  // Undoing keeps no list as it was: thousands tied in one step would hold as many lists.
  #tie(key, handler, undoing = false) {
    this.#handlers.set(key, withOne(this.#handlers.get(key) ?? [], handler));
    if (!undoing) this.progress.journal.undoable(() => this.#untie(key, handler, true));
  }
  #untie(key, handler, undoing = false) {
    const left = this.#handlers.get(key).filter((one) => one !== handler);
    if (left.length === 0) this.#handlers.delete(key);
    else this.#handlers.set(key, left);
    if (!undoing) this.progress.journal.undoable(() => this.#tie(key, handler, true));
  }
  /** Another record is opened: what was tied while the former one was loaded ends with it, rules forget what they saw. */
  leaveRecord() {
    const ended = this.#ofRecord;
    this.#ofRecord = /* @__PURE__ */ new Set();
    for (const [key, list2] of this.#handlers) {
      for (const handler of list2) {
        handler.rowRuns = null;
        if (ended.has(handler.number)) this.#untie(key, handler);
      }
    }
    this.#rules = this.#rules.filter(({ number: number6 }) => !ended.has(number6));
    for (const rule of this.#rules) {
      rule.claims = NOTHING_CLAIMED;
      rule.reads = null;
      rule.state = "new";
      rule.last = null;
    }
    for (const rows3 of this.#rowsFields())
      rows3.each = rows3.each.filter(({ made }) => !ended.has(made.number));
  }
  #rowsFields() {
    return this.state.parts.fields.flatMap(({ rows: rows3 }) => rows3 === null ? [] : [rows3]);
  }
  /** The names, columns as `rows.column`, at which anybody listens to this. */
  namesOf(type, names) {
    return names.filter((name2) => this.#handlers.has(`${type}:${name2}`));
  }
};

// src/core/session/time.ts
var Time = class {
  constructor(clock, waiting, settling, progress, pages) {
    this.clock = clock;
    this.waiting = waiting;
    this.settling = settling;
    this.progress = progress;
    this.pages = pages;
  }
  clock;
  waiting;
  settling;
  progress;
  pages;
  /** `until` in milliseconds since 1970-01-01T00:00:00Z. The clock never goes back. */
  pass(until, cause) {
    for (let call = this.waiting.next(until); call !== null; call = this.waiting.next(until)) {
      this.clock.now = Math.max(this.clock.now, call.due);
      this.progress.begin(false);
      this.settling.resume(call, cause);
      this.settling.settle(cause);
      this.pages.keep(cause);
    }
    this.clock.now = Math.max(this.clock.now, until);
  }
  /** Waits until no run is open. What it waited for in vain, or null when all have ended. */
  waitOut(cause) {
    const until = this.clock.now + SUBMIT_WAITS;
    while (this.waiting.runs.length > 0) {
      const call = this.waiting.next(until);
      if (call === null)
        return words.waitedTooLong(
          [...new Set(this.waiting.calls.map(({ name: name2 }) => name2))].join(" and ")
        );
      this.pass(call.due, cause);
    }
    return null;
  }
};

// src/core/session/rooms.ts
function roomsOf({ form: form2, tables, services: known2, traced }, { tied, failures: out }, scripts, opening, observer) {
  const { runLimit = RUNS_PER_STEP, checkPages = true } = form2.settings ?? {};
  const situation = new Situation(opening);
  const clock = new Clock(opening.clock, opening.zone ?? "UTC", opening.seed);
  const progress = new Progress();
  const state = new State(
    form2,
    tables,
    progress.journal,
    (pattern, text3) => scripts.fits(pattern, text3)
  );
  const tape = new TapeWriter(traced, progress.journal, observer);
  const waiting = new Waiting(progress, (run2) => scripts.drop(run2));
  const pages = new Pages(state.parts.pages, situation, tape, progress);
  const defaults = new Defaults(situation, clock);
  const opened = new Opened();
  const stopping = new Stopping();
  const ties = new Ties(state, progress, tied);
  const writing = new Writing(state, tape, progress, ties);
  const ruleClaims = new RuleClaims(state, tape, progress, writing);
  const services = new Services(known2, state, scripts, opening.services ?? {});
  const currentRun = new CurrentRun(state, tape, waiting, progress, writing, observer);
  const desk = new Desk(
    state,
    currentRun,
    writing,
    services,
    clock,
    defaults,
    situation,
    ties,
    pages,
    progress,
    opened,
    stopping,
    observer
  );
  const running = new Running(
    state,
    tape,
    waiting,
    progress,
    ruleClaims,
    writing,
    currentRun,
    scripts,
    desk
  );
  const corrections = new Corrections(state, progress, writing, defaults);
  const settling = new Settling(
    state,
    running,
    ruleClaims,
    tape,
    waiting,
    progress,
    ties,
    corrections,
    stopping,
    runLimit
  );
  const time4 = new Time(clock, waiting, settling, progress, pages);
  const records = new Records(
    state,
    situation,
    clock,
    tape,
    progress,
    settling,
    ties,
    running,
    waiting,
    corrections,
    opened,
    out,
    defaults
  );
  const entering = new Entering(state, progress, situation, ties, waiting, writing);
  const rowSteps = new RowSteps(state, progress, situation, writing, defaults);
  const pageSteps = new PageSteps(
    state,
    situation,
    progress,
    settling,
    stopping,
    time4,
    pages,
    tape,
    checkPages
  );
  const submitting2 = new Submitting(state, situation, progress, settling, stopping, time4, tape);
  return {
    clock,
    desk,
    entering,
    out,
    pages,
    pageSteps,
    progress,
    records,
    rowSteps,
    settling,
    situation,
    state,
    submitting: submitting2,
    tape,
    time: time4,
    waiting,
    writing
  };
}

// src/core/session/step.ts
var STEP_KINDS = {
  set: { namesPart: true },
  input: { namesPart: true },
  focus: { namesPart: true },
  blur: { namesPart: true },
  click: { namesPart: true },
  wait: { namesPart: false },
  turnTo: { namesPart: true },
  addRow: { namesPart: true },
  removeRow: { namesPart: true },
  moveRow: { namesPart: true },
  next: { namesPart: false },
  previous: { namesPart: false },
  answer: { namesPart: false },
  fromChild: { namesPart: true },
  submit: { namesPart: false }
};
function kindOfStep(step) {
  for (const key in step) if (Object.hasOwn(STEP_KINDS, key)) return key;
  throw new Error(`no step has only ${Object.keys(step).join(", ")}`);
}

// src/core/session/session.ts
var Session = class {
  constructor(material, loaded, scripts, opening, observer = null) {
    this.opening = opening;
    deepFreeze([opening.person, opening.launch]);
    this.#rooms = roomsOf(material, loaded, scripts, opening, observer);
    const { entering, time: time4, clock, settling, pageSteps, rowSteps, records, submitting: submitting2 } = this.#rooms;
    this.#doing = {
      set: (step, cause) => entering.set(step.set, step.to, cause),
      input: (step, cause) => entering.input(step.input, step.to, cause),
      focus: (step, cause) => entering.focus(step.focus, cause),
      blur: (step, cause) => entering.blur(step.blur, cause),
      click: (step, cause) => entering.click(step.click, cause),
      wait: (step, cause) => {
        settling.settle(cause);
        time4.pass(clock.now + Math.max(0, step.wait), cause);
        return null;
      },
      turnTo: (step, cause) => pageSteps.turnTo(step.turnTo, cause),
      addRow: (step, cause) => rowSteps.add(step.addRow, Array.isArray(step.with) ? step.with : [step.with ?? {}], cause),
      removeRow: (step, cause) => rowSteps.remove(step.removeRow, cause),
      moveRow: (step, cause) => rowSteps.move(step.moveRow, step.to, cause),
      next: (_, cause) => records.turn(1, cause),
      previous: (_, cause) => records.turn(-1, cause),
      answer: (step, cause) => this.#answerByHand(step, cause),
      fromChild: (step, cause) => this.#fromChild(step, cause),
      submit: (_, cause) => submitting2.submit(cause)
    };
  }
  opening;
  #rooms;
  #doing;
  /** The id that a new record is saved under, where it was not known at the opening. */
  identify(newId) {
    this.#rooms.situation.newId = newId;
  }
  /** Opens the form: base and record, `load` handlers, rules. To be called once, before any step. */
  open() {
    this.#rooms.records.open(this.opening.record);
    this.#afterSteps();
    return this.#answer(null);
  }
  /** Does one step of a person, settles, and gives the answer. */
  do(step) {
    let bare3 = step;
    if (step.at !== void 0) {
      const { at, ...rest } = step;
      this.#rooms.time.pass(this.opening.clock + at, null);
      bare3 = rest;
    }
    const refused = this.#step(bare3, "person");
    this.#afterSteps();
    return this.#answer(refused);
  }
  /** What scripts asked to follow as steps of their own. */
  #afterSteps() {
    for (let i = 0; this.#rooms.progress.submitWanted && i < SUBMISSIONS_PER_STEP; i++) {
      this.#rooms.progress.submitWanted = false;
      this.#step({ submit: true }, "script");
    }
  }
  #step(step, by) {
    this.#rooms.progress.begin(false);
    const entry = this.#rooms.tape.add(null, {
      type: "step",
      step,
      clock: this.#rooms.clock.now,
      by
    });
    const cause = entry?.n ?? null;
    const why = this.#begin(step, cause);
    if (why !== null) {
      this.#rooms.tape.add(cause, { type: "refused", why });
      this.#rooms.settling.settle(cause);
      return why;
    }
    this.#rooms.settling.settle(cause);
    this.#rooms.pages.keep(cause);
    return null;
  }
  /** Accepts a step and sets off what it does; or says why a person cannot do it. */
  #begin(step, cause) {
    const kind = kindOfStep(step);
    if (!TYPES.has(kind)) this.#rooms.entering.commitTyping(cause);
    return this.#doing[kind](step, cause);
  }
  /** Somebody answers a call of a service in its place. */
  #answerByHand(step, cause) {
    if (!this.#rooms.settling.settle(cause)) return null;
    const call = this.#rooms.waiting.pending(step.answer, step.which ?? 0);
    if (call === null) return `nothing waits for ${step.answer}`;
    call.due = Infinity;
    this.#rooms.time.pass(this.#rooms.clock.now + (step.after ?? 0), cause);
    if (!this.#rooms.waiting.calls.includes(call)) return null;
    call.due = this.#rooms.clock.now;
    const came = step.usual === true ? null : step.fails === void 0 ? { ok: true, value: deepFreeze(step.with ?? null) } : { ok: false, reason: step.fails };
    this.#rooms.progress.begin(false);
    this.#rooms.settling.resume(call, cause, came);
    return null;
  }
  /** A form that was opened from this one sets a value here, as a script would. */
  #fromChild({ fromChild: name2, to: offered2 }, cause) {
    const part = partAt(this.#rooms.state.parts, name2);
    if (part === null || part.sort !== "field" || part.rows !== null)
      return `there is no field "${name2}"`;
    const accepted = accept(offered2, part.field, this.#rooms.state.offers.surroundings(part));
    if (!accepted.ok) return `${part.label} takes ${accepted.takes}`;
    this.#rooms.progress.queue.push(() => {
      if (!equal(part.value, accepted.value))
        this.#rooms.writing.enter(part, accepted.value, "script", cause);
    });
    return null;
  }
  /** All that stands now, without anything being noted as told. */
  look() {
    const page = this.#rooms.situation.page ?? this.#rooms.pages.all.find(({ onScreen }) => onScreen);
    return lookAt(this.#rooms.state, page?.name ?? null, this.#rooms.clock.now);
  }
  /** Where scripts ask; for whoever asks between two steps. */
  get desk() {
    return this.#rooms.desk;
  }
  #answer(refused) {
    if (this.#rooms.state.faults.size > 0 && this.#rooms.progress.outcome === null)
      dropMended(this.#rooms.state);
    const { form: form2 } = this.#rooms.state.parts;
    const replaced = form2.now("replaced");
    const { changes, rows: rows3 } = tell2(this.#rooms.state);
    const { messages, logs: log, toParent, errors, outcome: submit } = this.#rooms.progress.take();
    return {
      refused,
      changes,
      rows: rows3,
      record: this.#rooms.situation.record,
      clock: this.#rooms.clock.now,
      waiting: this.#rooms.waiting.runs.map((run2) => ({
        behaviour: run2.handler.behaviour.name,
        line: run2.handler.line,
        part: run2.part?.name ?? null,
        calls: [...run2.calls].map(({ name: name2, args, since, due }) => ({
          name: name2,
          args,
          since,
          due: Number.isFinite(due) ? due : null
        }))
      })),
      toParent,
      page: this.#rooms.situation.page?.name ?? null,
      replaced: typeof replaced === "string" ? { text: replaced, final: false } : replaced,
      notice: form2.now("message"),
      messages,
      log,
      errors,
      failing: [...this.#rooms.out, ...this.#rooms.settling.failing.values()],
      submit,
      changed: this.#rooms.state.changed,
      tape: this.#rooms.tape.take()
    };
  }
};
var TYPES = /* @__PURE__ */ new Set(["set", "input", "focus", "blur"]);

// src/core/sandbox/asking-script.ts
var ASKING = "@asking";

// src/core/sandbox/numbers.ts
var Numbers = class {
  #parts;
  /** The row behind a number that is a row's. */
  #rows = /* @__PURE__ */ new Map();
  #ofRow = /* @__PURE__ */ new Map();
  #ofPart = /* @__PURE__ */ new Map();
  #next;
  constructor({ byName }) {
    this.#parts = [...byName.values()];
    this.#parts.forEach((part, number6) => this.#ofPart.set(part, number6));
    this.#next = this.#parts.length;
  }
  /** The part of a number; null when there is none. */
  part(number6) {
    return this.#parts[number6] ?? this.#cell(number6);
  }
  /** Cells become parts when somebody first asks for them. */
  #cell(number6) {
    if (!(number6 >= 0 && number6 < this.#next)) return null;
    let at = number6;
    while (!this.#rows.has(at)) at--;
    const row2 = this.#rows.get(at);
    return this.#parts[number6] = row2.rows.cell(row2, row2.rows.columnNames[number6 - at - 1]);
  }
  row(number6) {
    return this.#rows.get(number6) ?? null;
  }
  numberOfRow(row2) {
    const known2 = this.#ofRow.get(row2);
    if (known2 !== void 0) return known2;
    const number6 = this.#next;
    this.#next += 1 + row2.rows.columns.size;
    this.#ofRow.set(row2, number6);
    this.#rows.set(number6, row2);
    this.#parts[number6] = row2.part;
    return number6;
  }
  numberOf(part) {
    const { row: row2 } = part;
    if (row2 === null) return this.#ofPart.get(part);
    const number6 = this.numberOfRow(row2);
    return part.sort === "row" ? number6 : number6 + 1 + row2.rows.columns.get(part.field.name).at;
  }
};

// node_modules/zod/v4/core/util.js
var util_exports = {};
__export(util_exports, {
  BIGINT_FORMAT_RANGES: () => BIGINT_FORMAT_RANGES,
  CONSTANT_CATCH: () => CONSTANT_CATCH,
  Class: () => Class,
  NUMBER_FORMAT_RANGES: () => NUMBER_FORMAT_RANGES,
  aborted: () => aborted,
  allowsEval: () => allowsEval,
  assert: () => assert,
  assertEqual: () => assertEqual,
  assertIs: () => assertIs,
  assertNever: () => assertNever,
  assertNotEqual: () => assertNotEqual,
  assignProp: () => assignProp,
  attachSchema: () => attachSchema,
  base64ToUint8Array: () => base64ToUint8Array,
  base64urlToUint8Array: () => base64urlToUint8Array,
  cached: () => cached,
  captureStackTrace: () => captureStackTrace,
  cleanEnum: () => cleanEnum,
  cleanRegex: () => cleanRegex,
  clone: () => clone,
  cloneDef: () => cloneDef,
  codePointLength: () => codePointLength,
  constantCatch: () => constantCatch,
  createTransparentProxy: () => createTransparentProxy,
  defineLazy: () => defineLazy,
  defineLazyInternal: () => defineLazyInternal,
  derived: () => derived,
  esc: () => esc,
  escapeRegex: () => escapeRegex,
  explicitlyAborted: () => explicitlyAborted,
  extend: () => extend,
  finalizeIssue: () => finalizeIssue,
  floatSafeRemainder: () => floatSafeRemainder,
  getElementAtPath: () => getElementAtPath,
  getEnumValues: () => getEnumValues,
  getLengthableOrigin: () => getLengthableOrigin,
  getParsedType: () => getParsedType,
  getSizableOrigin: () => getSizableOrigin,
  hexToUint8Array: () => hexToUint8Array,
  hide: () => hide,
  installLazyProp: () => installLazyProp,
  isObject: () => isObject,
  isPlainObject: () => isPlainObject,
  issue: () => issue,
  joinValues: () => joinValues,
  jsonStringifyReplacer: () => jsonStringifyReplacer,
  members: () => members,
  merge: () => merge,
  mergeDefs: () => mergeDefs,
  normalizeParams: () => normalizeParams,
  nullish: () => nullish,
  numKeys: () => numKeys,
  objectClone: () => objectClone,
  omit: () => omit,
  optionalKeys: () => optionalKeys,
  own: () => own,
  parsedType: () => parsedType,
  partial: () => partial,
  pick: () => pick,
  prefixIssues: () => prefixIssues,
  primitiveTypes: () => primitiveTypes,
  promiseAllObject: () => promiseAllObject,
  propertyKeyTypes: () => propertyKeyTypes,
  randomString: () => randomString,
  rawShape: () => rawShape,
  required: () => required,
  safeExtend: () => safeExtend,
  shallowClone: () => shallowClone,
  sizeCaps: () => sizeCaps,
  slugify: () => slugify,
  stringifyPrimitive: () => stringifyPrimitive,
  toZod: () => toZod,
  uint8ArrayToBase64: () => uint8ArrayToBase64,
  uint8ArrayToBase64url: () => uint8ArrayToBase64url,
  uint8ArrayToHex: () => uint8ArrayToHex,
  unwrapMessage: () => unwrapMessage
});
function assertEqual(val) {
  return val;
}
function assertNotEqual(val) {
  return val;
}
function toZod() {
  return (schema) => schema;
}
function assertIs(_arg) {
}
function assertNever(_x) {
  throw new Error("Unexpected value in exhaustive check");
}
function assert(_) {
}
function getEnumValues(entries) {
  const numericValues = Object.values(entries).filter((v) => typeof v === "number");
  const values = Object.entries(entries).filter(([k, _]) => numericValues.indexOf(+k) === -1).map(([_, v]) => v);
  return values;
}
function joinValues(array3, separator = "|") {
  return array3.map((val) => stringifyPrimitive(val)).join(separator);
}
function jsonStringifyReplacer(_, value) {
  if (typeof value === "bigint")
    return value.toString();
  return value;
}
var Cached = class {
  constructor(getter) {
    this._getter = getter;
    this._value = void 0;
  }
  get value() {
    const getter = this._getter;
    if (getter !== void 0) {
      this._value = getter();
      this._getter = void 0;
    }
    return this._value;
  }
};
function cached(getter) {
  return new Cached(getter);
}
function nullish(input) {
  return input === null || input === void 0;
}
function cleanRegex(source) {
  const start = source.startsWith("^") ? 1 : 0;
  const end = source.endsWith("$") ? source.length - 1 : source.length;
  return source.slice(start, end);
}
function floatSafeRemainder(val, step) {
  const ratio = val / step;
  const roundedRatio = Math.round(ratio);
  const tolerance = 4 * Number.EPSILON * Math.max(Math.abs(ratio), 1);
  if (Math.abs(ratio - roundedRatio) < tolerance)
    return 0;
  return ratio - roundedRatio;
}
var EVALUATING = /* @__PURE__ */ Symbol("evaluating");
function defineLazy(object, key, getter) {
  let value = void 0;
  Object.defineProperty(object, key, {
    get() {
      if (value === EVALUATING) {
        return void 0;
      }
      if (value === void 0) {
        value = EVALUATING;
        value = getter();
      }
      return value;
    },
    set(v) {
      Object.defineProperty(object, key, {
        value: v
        // configurable: true,
      });
    },
    configurable: true
  });
}
function objectClone(obj) {
  return Object.create(Object.getPrototypeOf(obj), Object.getOwnPropertyDescriptors(obj));
}
function assignProp(target, prop, value) {
  Object.defineProperty(target, prop, {
    value,
    writable: true,
    enumerable: true,
    configurable: true
  });
}
function rawShape(def) {
  const desc = Object.getOwnPropertyDescriptor(def, "shape");
  return desc?.get ? desc.get.raw : desc?.value;
}
function sourceShape(schema) {
  return rawShape(schema._zod.def) ?? schema._zod.def.shape;
}
function deferProp(target, key, getter) {
  Object.defineProperty(target, key, {
    get() {
      const value = getter();
      assignProp(this, key, value);
      return value;
    },
    enumerable: true,
    configurable: true
  });
}
function putProp(target, key, value) {
  if (key in target)
    assignProp(target, key, value);
  else
    target[key] = value;
}
function mirrorShape(target, source, keys, wrap) {
  const raw = sourceShape(source);
  for (const key of keys) {
    const desc = Object.getOwnPropertyDescriptor(raw, key);
    if (!desc.enumerable)
      continue;
    if (desc.get) {
      deferProp(target, key, () => {
        const value = source._zod.def.shape[key];
        return wrap ? wrap(value, key) : value;
      });
    } else
      putProp(target, key, wrap ? wrap(desc.value, key) : desc.value);
  }
}
function mirrorProps(target, source) {
  for (const key of Reflect.ownKeys(source)) {
    const desc = Object.getOwnPropertyDescriptor(source, key);
    if (!desc.enumerable)
      continue;
    if (desc.get)
      deferProp(target, key, () => source[key]);
    else
      putProp(target, key, desc.value);
  }
}
function mergeDefs(...defs) {
  const mergedDescriptors = {};
  for (const def of defs) {
    const descriptors = Object.getOwnPropertyDescriptors(def);
    Object.assign(mergedDescriptors, descriptors);
  }
  return Object.defineProperties({}, mergedDescriptors);
}
function cloneDef(schema) {
  return mergeDefs(schema._zod.def);
}
function getElementAtPath(obj, path) {
  if (!path)
    return obj;
  return path.reduce((acc, key) => acc?.[key], obj);
}
function promiseAllObject(promisesObj) {
  const keys = Object.keys(promisesObj);
  const promises = keys.map((key) => promisesObj[key]);
  return Promise.all(promises).then((results) => {
    const resolvedObj = {};
    for (let i = 0; i < keys.length; i++) {
      resolvedObj[keys[i]] = results[i];
    }
    return resolvedObj;
  });
}
function randomString(length = 10) {
  const chars = "abcdefghijklmnopqrstuvwxyz";
  let str = "";
  for (let i = 0; i < length; i++) {
    str += chars[Math.floor(Math.random() * chars.length)];
  }
  return str;
}
function esc(str) {
  return JSON.stringify(str);
}
function slugify(input) {
  return input.toLowerCase().trim().replace(/[^\w\s-]/g, "").replace(/[\s_-]+/g, "-").replace(/^-+|-+$/g, "");
}
var captureStackTrace = "captureStackTrace" in Error ? Error.captureStackTrace : (..._args) => {
};
function isObject(data) {
  return typeof data === "object" && data !== null && !Array.isArray(data);
}
var allowsEval = /* @__PURE__ */ cached(() => {
  if (globalConfig.jitless) {
    return false;
  }
  if (typeof navigator !== "undefined" && navigator?.userAgent?.includes("Cloudflare")) {
    return false;
  }
  try {
    const F2 = Function;
    new F2("");
    return true;
  } catch (_) {
    return false;
  }
});
function isPlainObject(o) {
  if (isObject(o) === false)
    return false;
  const ctor = o.constructor;
  if (ctor === void 0)
    return true;
  if (typeof ctor !== "function")
    return true;
  const prot = ctor.prototype;
  if (isObject(prot) === false)
    return false;
  if (Object.prototype.hasOwnProperty.call(prot, "isPrototypeOf") === false) {
    return false;
  }
  return true;
}
function shallowClone(o) {
  if (isPlainObject(o))
    return { ...o };
  if (Array.isArray(o))
    return [...o];
  if (o instanceof Map)
    return new Map(o);
  if (o instanceof Set)
    return new Set(o);
  return o;
}
function numKeys(data) {
  let keyCount = 0;
  for (const key in data) {
    if (Object.prototype.hasOwnProperty.call(data, key)) {
      keyCount++;
    }
  }
  return keyCount;
}
var getParsedType = (data) => {
  const t = typeof data;
  switch (t) {
    case "undefined":
      return "undefined";
    case "string":
      return "string";
    case "number":
      return Number.isNaN(data) ? "nan" : "number";
    case "boolean":
      return "boolean";
    case "function":
      return "function";
    case "bigint":
      return "bigint";
    case "symbol":
      return "symbol";
    case "object":
      if (Array.isArray(data)) {
        return "array";
      }
      if (data === null) {
        return "null";
      }
      if (data.then && typeof data.then === "function" && data.catch && typeof data.catch === "function") {
        return "promise";
      }
      if (typeof Map !== "undefined" && data instanceof Map) {
        return "map";
      }
      if (typeof Set !== "undefined" && data instanceof Set) {
        return "set";
      }
      if (typeof Date !== "undefined" && data instanceof Date) {
        return "date";
      }
      if (typeof File !== "undefined" && data instanceof File) {
        return "file";
      }
      return "object";
    default:
      throw new Error(`Unknown data type: ${t}`);
  }
};
var propertyKeyTypes = /* @__PURE__ */ new Set(["string", "number", "symbol"]);
var primitiveTypes = /* @__PURE__ */ new Set([
  "string",
  "number",
  "bigint",
  "boolean",
  "symbol",
  "undefined"
]);
function escapeRegex(str) {
  return str.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
}
function clone(inst, def, params) {
  const cl = new inst._zod.constr(def ?? inst._zod.def);
  if (!def || params?.parent)
    cl._zod.parent = inst;
  return cl;
}
function normalizeParams(_params) {
  const params = _params;
  if (!params)
    return {};
  if (typeof params === "string")
    return { error: () => params };
  if (params?.message !== void 0) {
    if (params?.error !== void 0)
      throw new Error("Cannot specify both `message` and `error` params");
    params.error = params.message;
  }
  delete params.message;
  if (typeof params.error === "string")
    return { ...params, error: () => params.error };
  return params;
}
function createTransparentProxy(getter) {
  let target;
  return new Proxy({}, {
    get(_, prop, receiver) {
      target ?? (target = getter());
      return Reflect.get(target, prop, receiver);
    },
    set(_, prop, value, receiver) {
      target ?? (target = getter());
      return Reflect.set(target, prop, value, receiver);
    },
    has(_, prop) {
      target ?? (target = getter());
      return Reflect.has(target, prop);
    },
    deleteProperty(_, prop) {
      target ?? (target = getter());
      return Reflect.deleteProperty(target, prop);
    },
    ownKeys(_) {
      target ?? (target = getter());
      return Reflect.ownKeys(target);
    },
    getOwnPropertyDescriptor(_, prop) {
      target ?? (target = getter());
      return Reflect.getOwnPropertyDescriptor(target, prop);
    },
    defineProperty(_, prop, descriptor) {
      target ?? (target = getter());
      return Reflect.defineProperty(target, prop, descriptor);
    }
  });
}
function stringifyPrimitive(value) {
  if (typeof value === "bigint")
    return value.toString() + "n";
  if (typeof value === "string")
    return `"${value}"`;
  return `${value}`;
}
function optionalKeys(shape) {
  return Object.keys(shape).filter((k) => {
    return shape[k]._zod.optin !== void 0 && shape[k]._zod.optout === "optional";
  });
}
var NUMBER_FORMAT_RANGES = /* @__PURE__ */ (() => ({
  safeint: [Number.MIN_SAFE_INTEGER, Number.MAX_SAFE_INTEGER],
  int32: [-2147483648, 2147483647],
  uint32: [0, 4294967295],
  float32: [-34028234663852886e22, 34028234663852886e22],
  float64: [-Number.MAX_VALUE, Number.MAX_VALUE]
}))();
var BIGINT_FORMAT_RANGES = {
  int64: [/* @__PURE__ */ BigInt("-9223372036854775808"), /* @__PURE__ */ BigInt("9223372036854775807")],
  uint64: [/* @__PURE__ */ BigInt(0), /* @__PURE__ */ BigInt("18446744073709551615")]
};
function pick(schema, mask) {
  const currDef = schema._zod.def;
  const checks2 = currDef.checks;
  const hasChecks = checks2 && checks2.length > 0;
  if (hasChecks) {
    throw new Error(".pick() cannot be used on object schemas containing refinements");
  }
  const newShape = {};
  mirrorShape(newShape, schema, maskedKeys(schema, mask));
  return clone(schema, mergeDefs(currDef, { shape: newShape, checks: [] }));
}
function maskedKeys(schema, mask) {
  const raw = sourceShape(schema);
  const keys = [];
  for (const key of Reflect.ownKeys(mask)) {
    if (!Object.getOwnPropertyDescriptor(raw, key)?.enumerable) {
      throw new Error(`Unrecognized key: "${String(key)}"`);
    }
    if (mask[key])
      keys.push(key);
  }
  return keys;
}
function omit(schema, mask) {
  const currDef = schema._zod.def;
  const checks2 = currDef.checks;
  const hasChecks = checks2 && checks2.length > 0;
  if (hasChecks) {
    throw new Error(".omit() cannot be used on object schemas containing refinements");
  }
  const omitted = new Set(maskedKeys(schema, mask));
  const newShape = {};
  mirrorShape(newShape, schema, Reflect.ownKeys(sourceShape(schema)).filter((key) => !omitted.has(key)));
  return clone(schema, mergeDefs(currDef, { shape: newShape, checks: [] }));
}
function extend(schema, shape) {
  if (!isPlainObject(shape)) {
    throw new Error("Invalid input to extend: expected a plain object");
  }
  const checks2 = schema._zod.def.checks;
  const hasChecks = checks2 && checks2.length > 0;
  if (hasChecks) {
    const existingShape = sourceShape(schema);
    for (const key of Reflect.ownKeys(shape)) {
      if (Object.getOwnPropertyDescriptor(existingShape, key) !== void 0) {
        throw new Error("Cannot overwrite keys on object schemas containing refinements. Use `.safeExtend()` instead.");
      }
    }
  }
  return clone(schema, mergeDefs(schema._zod.def, { shape: extended(schema, shape) }));
}
function extended(schema, shape) {
  const newShape = {};
  mirrorShape(newShape, schema, Reflect.ownKeys(sourceShape(schema)));
  mirrorProps(newShape, shape);
  return newShape;
}
function safeExtend(schema, shape) {
  if (!isPlainObject(shape)) {
    throw new Error("Invalid input to safeExtend: expected a plain object");
  }
  return clone(schema, mergeDefs(schema._zod.def, { shape: extended(schema, shape) }));
}
function merge(a, b) {
  if (!b?._zod?.def) {
    throw new Error("Invalid input to merge: expected an object schema. To merge a plain shape, use `.extend()`.");
  }
  if (a._zod.def.checks?.length) {
    throw new Error(".merge() cannot be used on object schemas containing refinements. Use .safeExtend() instead.");
  }
  const newShape = {};
  mirrorShape(newShape, a, Reflect.ownKeys(sourceShape(a)));
  mirrorShape(newShape, b, Reflect.ownKeys(sourceShape(b)));
  const def = mergeDefs(a._zod.def, {
    shape: newShape,
    get catchall() {
      return b._zod.def.catchall;
    },
    checks: b._zod.def.checks ?? []
  });
  return clone(a, def);
}
function partial(Class2, schema, mask, name2 = "partial") {
  const currDef = schema._zod.def;
  const checks2 = currDef.checks;
  const hasChecks = checks2 && checks2.length > 0;
  if (hasChecks) {
    throw new Error(`.${name2}() cannot be used on object schemas containing refinements`);
  }
  const selected = mask ? new Set(maskedKeys(schema, mask)) : void 0;
  const newShape = {};
  mirrorShape(newShape, schema, Reflect.ownKeys(sourceShape(schema)), Class2 && ((value, key) => selected && !selected.has(key) ? value : new Class2({ type: "optional", innerType: value })));
  return clone(schema, mergeDefs(schema._zod.def, { shape: newShape, checks: [] }));
}
function required(Class2, schema, mask) {
  const selected = mask ? new Set(maskedKeys(schema, mask)) : void 0;
  const newShape = {};
  mirrorShape(newShape, schema, Reflect.ownKeys(sourceShape(schema)), (value, key) => (
    // overwrite with non-optional
    selected && !selected.has(key) ? value : new Class2({ type: "nonoptional", innerType: value })
  ));
  return clone(schema, mergeDefs(schema._zod.def, { shape: newShape }));
}
function aborted(x, startIndex = 0) {
  if (x.aborted === true)
    return true;
  for (let i = startIndex; i < x.issues.length; i++) {
    if (x.issues[i]?.continue !== true) {
      return true;
    }
  }
  return false;
}
function explicitlyAborted(x, startIndex = 0) {
  if (x.aborted === true)
    return true;
  for (let i = startIndex; i < x.issues.length; i++) {
    if (x.issues[i]?.continue === false) {
      return true;
    }
  }
  return false;
}
function prefixIssues(path, issues) {
  return issues.map((iss) => {
    var _a3;
    (_a3 = iss).path ?? (_a3.path = []);
    iss.path.unshift(path);
    return iss;
  });
}
function unwrapMessage(message) {
  return typeof message === "string" ? message : message?.message;
}
function sizeCaps(defChecks) {
  const caps = [];
  for (const ch of defChecks ?? []) {
    const d = ch._zod.def;
    if (!/_(length|size)$|_equals$/.test(d.check))
      break;
    const max = d.maximum ?? d.length ?? d.size;
    if (max >= 0)
      caps.push([max, ch]);
  }
  return caps;
}
function attachSchema(issues, start, inst) {
  var _a3;
  for (let i = start; i < issues.length; i++) {
    (_a3 = issues[i]).schema ?? (_a3.schema = inst);
  }
}
function finalizeIssue(iss, ctx, config2) {
  var _a3;
  const traits = iss.inst?._zod?.traits;
  if (traits?.has("$ZodType")) {
    if (traits.has("$ZodCheck"))
      (_a3 = iss).schema ?? (_a3.schema = iss.inst);
    else
      iss.schema = iss.inst;
  }
  const schemaError = iss.schema !== iss.inst ? iss.schema?._zod.def?.error : void 0;
  const message = iss.message ? iss.message : unwrapMessage(iss.inst?._zod.def?.error?.(iss)) ?? unwrapMessage(schemaError?.(iss)) ?? unwrapMessage(ctx?.error?.(iss)) ?? unwrapMessage(config2.customError?.(iss)) ?? unwrapMessage(config2.localeError?.(iss)) ?? "Invalid input";
  const full2 = {};
  for (const k of Object.keys(iss)) {
    if (k === "inst" || k === "schema" || k === "continue" || k === "input" || k === "__proto__")
      continue;
    full2[k] = iss[k];
  }
  full2.path ?? (full2.path = []);
  full2.message = message;
  if (ctx?.reportInput) {
    full2.input = iss.input;
  }
  return full2;
}
function getSizableOrigin(input) {
  if (input instanceof Set)
    return "set";
  if (input instanceof Map)
    return "map";
  if (input instanceof File)
    return "file";
  return "unknown";
}
var highSurrogate = /[\uD800-\uDBFF]/;
function codePointLength(str) {
  const units = str.length;
  if (!highSurrogate.test(str))
    return units;
  let count = units;
  for (let i = 0; i < units - 1; i++) {
    if ((str.charCodeAt(i) & 64512) === 55296 && (str.charCodeAt(i + 1) & 64512) === 56320) {
      count--;
      i++;
    }
  }
  return count;
}
function getLengthableOrigin(input) {
  if (Array.isArray(input))
    return "array";
  if (typeof input === "string")
    return "string";
  return "unknown";
}
function parsedType(data) {
  const t = typeof data;
  switch (t) {
    case "number": {
      return Number.isNaN(data) ? "nan" : "number";
    }
    case "object": {
      if (data === null) {
        return "null";
      }
      if (Array.isArray(data)) {
        return "array";
      }
      const obj = data;
      if (obj && Object.getPrototypeOf(obj) !== Object.prototype && "constructor" in obj && obj.constructor) {
        return obj.constructor.name;
      }
    }
  }
  return t;
}
function issue(...args) {
  const [iss, input, inst] = args;
  if (typeof iss === "string") {
    return {
      message: iss,
      code: "custom",
      input,
      inst
    };
  }
  return { ...iss };
}
function cleanEnum(obj) {
  return Object.entries(obj).filter(([k, _]) => {
    return Number.isNaN(Number.parseInt(k, 10));
  }).map((el) => el[1]);
}
function base64ToUint8Array(base642) {
  const binaryString = atob(base642);
  const bytes = new Uint8Array(binaryString.length);
  for (let i = 0; i < binaryString.length; i++) {
    bytes[i] = binaryString.charCodeAt(i);
  }
  return bytes;
}
function uint8ArrayToBase64(bytes) {
  let binaryString = "";
  for (let i = 0; i < bytes.length; i++) {
    binaryString += String.fromCharCode(bytes[i]);
  }
  return btoa(binaryString);
}
function base64urlToUint8Array(base64url2) {
  const base642 = base64url2.replace(/-/g, "+").replace(/_/g, "/");
  const padding = "=".repeat((4 - base642.length % 4) % 4);
  return base64ToUint8Array(base642 + padding);
}
function uint8ArrayToBase64url(bytes) {
  return uint8ArrayToBase64(bytes).replace(/\+/g, "-").replace(/\//g, "_").replace(/=/g, "");
}
function hexToUint8Array(hex) {
  const cleanHex = hex.replace(/^0x/, "");
  if (cleanHex.length % 2 !== 0) {
    throw new Error("Invalid hex string length");
  }
  const bytes = new Uint8Array(cleanHex.length / 2);
  for (let i = 0; i < cleanHex.length; i += 2) {
    bytes[i / 2] = Number.parseInt(cleanHex.slice(i, i + 2), 16);
  }
  return bytes;
}
function uint8ArrayToHex(bytes) {
  return Array.from(bytes).map((b) => b.toString(16).padStart(2, "0")).join("");
}
var Class = class {
  constructor(..._args) {
  }
};
function members(proto, table) {
  for (const key in table) {
    const desc = Object.getOwnPropertyDescriptor(table, key);
    if (desc.get)
      Object.defineProperty(proto, key, { ...desc, enumerable: false });
    else
      defineBound(proto, key, desc.value);
  }
}
function own(inst, key, value, enumerable = true) {
  Object.defineProperty(inst, key, { configurable: true, writable: true, enumerable, value });
  return value;
}
function hide(inst, key, value) {
  return own(inst, key, value, false);
}
// @__NO_SIDE_EFFECTS__
function derived(computes, table) {
  for (const key in computes) {
    const compute = computes[key];
    Object.defineProperty(table, key, {
      configurable: true,
      enumerable: true,
      get() {
        return own(this, key, compute(this));
      },
      set(value) {
        own(this, key, value);
      }
    });
  }
  return table;
}
function defineBound(proto, key, fn) {
  Object.defineProperty(proto, key, {
    configurable: true,
    get() {
      return this == null ? fn : own(this, key, fn.bind(this));
    },
    set(value) {
      own(this, key, value);
    }
  });
}
function claim(inst, sentinel) {
  const proto = Object.getPrototypeOf(inst);
  return sentinel in proto ? void 0 : proto;
}
var installing;
var broke = false;
var breaker = {
  configurable: true,
  get() {
    broke = true;
    return void 0;
  }
};
function defineLazyInternal(inst, key, compute) {
  const proto = Object.getPrototypeOf(inst._zod);
  if (key in proto && installing !== inst._zod) {
    installing = void 0;
    return;
  }
  installing = inst._zod;
  Object.defineProperty(proto, key, {
    configurable: true,
    get() {
      Object.defineProperty(this, key, breaker);
      const outer = broke;
      broke = false;
      try {
        const value = compute(this);
        if (broke)
          delete this[key];
        else
          Object.defineProperty(this, key, { configurable: true, writable: true, value });
        broke = broke || outer;
        return value;
      } catch (err) {
        delete this[key];
        broke = broke || outer;
        throw err;
      }
    },
    set(value) {
      Object.defineProperty(this, key, { configurable: true, writable: true, value });
    }
  });
}
function installLazyProp(inst, key, make, enumerable) {
  const proto = claim(inst, key);
  if (!proto)
    return;
  Object.defineProperty(proto, key, {
    configurable: true,
    get() {
      const desc = { configurable: true, writable: true, enumerable, value: void 0 };
      Object.defineProperty(this, key, desc);
      desc.value = make(this);
      Object.defineProperty(this, key, desc);
      return desc.value;
    },
    set(value) {
      Object.defineProperty(this, key, { configurable: true, writable: true, enumerable, value });
    }
  });
}
var CONSTANT_CATCH = "~constantCatch";
function constantCatch(value) {
  const fn = () => value;
  fn[CONSTANT_CATCH] = true;
  return fn;
}

// node_modules/zod/v4/core/core.js
var _a;
var _zodDesc = { value: void 0, enumerable: false };
var _E = "captureStackTrace" in Error ? Error : null;
function newError(Definition) {
  const E = _E;
  if (E) {
    const saved3 = E.stackTraceLimit;
    if (typeof saved3 === "number") {
      try {
        E.stackTraceLimit = 0;
      } catch {
        _E = null;
        return new Definition();
      }
      try {
        return new Definition();
      } finally {
        E.stackTraceLimit = saved3;
      }
    }
  }
  return new Definition();
}
// @__NO_SIDE_EFFECTS__
function $constructor(name2, initializer3, proto, params) {
  const zodProto = {};
  function Internals(def) {
    this.def = def;
    this.constr = _;
    this.traits = /* @__PURE__ */ new Set();
  }
  Internals.prototype = zodProto;
  const protoMembers = proto;
  const initialized = protoMembers && /* @__PURE__ */ new WeakSet();
  function init(inst, def) {
    if (!inst._zod) {
      _zodDesc.value = new Internals(def);
      try {
        Object.defineProperty(inst, "_zod", _zodDesc);
      } finally {
        _zodDesc.value = void 0;
      }
    } else if (inst._zod.traits.has(name2)) {
      return;
    }
    inst._zod.traits.add(name2);
    initializer3(inst, def);
    if (initialized) {
      const own2 = Object.getPrototypeOf(inst);
      const ctorProto = inst._zod.constr.prototype;
      let up = own2;
      while (up && up !== ctorProto)
        up = Object.getPrototypeOf(up);
      const target = up ?? own2;
      if (!initialized.has(target)) {
        initialized.add(target);
        members(target, protoMembers);
      }
    }
    const proto2 = _.prototype;
    for (const k in proto2) {
      if (!Object.prototype.hasOwnProperty.call(proto2, k))
        continue;
      if (!(k in inst)) {
        inst[k] = proto2[k].bind(inst);
      }
    }
  }
  const Parent = params?.Parent ?? Object;
  class Definition extends Parent {
  }
  Object.defineProperty(Definition, "name", { value: name2 });
  function _(def) {
    const inst = params?.Parent ? newError(Definition) : this;
    init(inst, def);
    const deferred = inst._zod.deferred;
    if (deferred) {
      for (const fn of deferred) {
        fn();
      }
      inst._zod.deferred = void 0;
    }
    const pp = globalThis.__zod_globalConfig?.postProcessor;
    if (pp)
      pp(inst);
    return inst;
  }
  Object.defineProperty(_, "init", { value: init });
  Object.defineProperty(_, Symbol.hasInstance, {
    value: (inst) => {
      if (params?.Parent && inst instanceof params.Parent)
        return true;
      return inst?._zod?.traits?.has(name2);
    }
  });
  Object.defineProperty(_, "name", { value: name2 });
  return _;
}
var $ZodAsyncError = class extends Error {
  constructor() {
    super(`Encountered Promise during synchronous parse. Use .parseAsync() instead.`);
  }
};
var $ZodEncodeError = class extends Error {
  constructor(name2) {
    super(`Encountered unidirectional transform during encode: ${name2}`);
    this.name = "ZodEncodeError";
  }
};
(_a = globalThis).__zod_globalConfig ?? (_a.__zod_globalConfig = {});
var globalConfig = globalThis.__zod_globalConfig;
function config(newConfig) {
  if (newConfig)
    Object.assign(globalConfig, newConfig);
  return globalConfig;
}

// node_modules/zod/v4/core/errors.js
function _getMessage() {
  const internals = this._zod;
  internals.message ?? (internals.message = JSON.stringify(internals.def, jsonStringifyReplacer, 2));
  return internals.message;
}
function _setMessage(value) {
  this._zod.message = value;
}
var _messageDesc = {
  get: _getMessage,
  set: _setMessage,
  enumerable: true,
  configurable: true
};
var _issuesDesc = { value: void 0, enumerable: false };
var _installedToString = /* @__PURE__ */ new WeakSet([Object.prototype, Error.prototype]);
var initializer = (inst, def) => {
  inst.name = "$ZodError";
  _issuesDesc.value = def;
  Object.defineProperty(inst, "issues", _issuesDesc);
  _issuesDesc.value = void 0;
  Object.defineProperty(inst, "message", _messageDesc);
  const proto = Object.getPrototypeOf(inst);
  if (!_installedToString.has(proto)) {
    _installedToString.add(proto);
    Object.defineProperty(proto, "toString", {
      configurable: true,
      enumerable: false,
      get() {
        const value = () => this.message;
        Object.defineProperty(this, "toString", { value, configurable: true, writable: true });
        return value;
      },
      set(value) {
        Object.defineProperty(this, "toString", { value, configurable: true, writable: true });
      }
    });
  }
};
var $ZodError = $constructor("$ZodError", initializer);
var $ZodRealError = $constructor("$ZodError", initializer, void 0, {
  Parent: Error
});
function node(obj, key, make) {
  if (!Object.prototype.hasOwnProperty.call(obj, key)) {
    if (key === "__proto__") {
      Object.defineProperty(obj, key, { value: make(), writable: true, enumerable: true, configurable: true });
    } else {
      obj[key] = make();
    }
  }
  return obj[key];
}
function flattenError(error2, mapper = (issue2) => issue2.message) {
  const fieldErrors = {};
  const formErrors = [];
  for (const sub of error2.issues) {
    if (sub.path.length > 0) {
      node(fieldErrors, sub.path[0], () => []).push(mapper(sub));
    } else {
      formErrors.push(mapper(sub));
    }
  }
  return { formErrors, fieldErrors };
}
function formatError(error2, mapper = (issue2) => issue2.message) {
  const fieldErrors = { _errors: [] };
  const processError = (error3, path = []) => {
    for (const issue2 of error3.issues) {
      if (issue2.code === "invalid_union" && issue2.errors.length) {
        issue2.errors.map((issues) => processError({ issues }, [...path, ...issue2.path]));
      } else if (issue2.code === "invalid_key") {
        processError({ issues: issue2.issues }, [...path, ...issue2.path]);
      } else if (issue2.code === "invalid_element") {
        processError({ issues: issue2.issues }, [...path, ...issue2.path]);
      } else {
        const fullpath = [...path, ...issue2.path];
        if (fullpath.length === 0) {
          fieldErrors._errors.push(mapper(issue2));
        } else {
          let curr = fieldErrors;
          let i = 0;
          while (i < fullpath.length) {
            const el = fullpath[i];
            const terminal = i === fullpath.length - 1;
            if (el === "_errors") {
              if (terminal)
                curr._errors.push(mapper(issue2));
              i++;
              continue;
            }
            if (!Object.prototype.hasOwnProperty.call(curr, el)) {
              Object.defineProperty(curr, el, {
                value: { _errors: [] },
                enumerable: true,
                writable: true,
                configurable: true
              });
            }
            const node2 = curr[el];
            if (terminal) {
              node2._errors.push(mapper(issue2));
            }
            curr = node2;
            i++;
          }
        }
      }
    }
  };
  processError(error2);
  return fieldErrors;
}

// node_modules/zod/v4/core/parse.js
function finalizeParams(callee, params) {
  return { callee: params?.callee ?? callee, Err: params?.Err };
}
var _parse = (_Err) => {
  const fn = (schema, value, _ctx, _params) => {
    const ctx = _ctx ? { ..._ctx, async: false } : { async: false };
    const result = schema._zod.run({ value, issues: [] }, ctx);
    if (result instanceof Promise) {
      throw new $ZodAsyncError();
    }
    if (result.issues.length) {
      const e = new (_params?.Err ?? _Err)(result.issues.map((iss) => finalizeIssue(iss, ctx, config())));
      captureStackTrace(e, _params?.callee ?? fn);
      throw e;
    }
    return result.value;
  };
  return fn;
};
var _parseAsync = (_Err) => {
  const fn = async (schema, value, _ctx, params) => {
    const ctx = _ctx ? { ..._ctx, async: true } : { async: true };
    let result = schema._zod.run({ value, issues: [] }, ctx);
    if (result instanceof Promise)
      result = await result;
    if (result.issues.length) {
      const e = new (params?.Err ?? _Err)(result.issues.map((iss) => finalizeIssue(iss, ctx, config())));
      captureStackTrace(e, params?.callee ?? fn);
      throw e;
    }
    return result.value;
  };
  return fn;
};
var _safeParse = (_Err) => (schema, value, _ctx) => {
  const ctx = _ctx ? { ..._ctx, async: false } : { async: false };
  const result = schema._zod.run({ value, issues: [] }, ctx);
  if (result instanceof Promise) {
    throw new $ZodAsyncError();
  }
  return result.issues.length ? failure(_Err, result.issues, ctx) : { success: true, data: result.value };
};
function failure(Err, issues, ctx) {
  let error2;
  return {
    success: false,
    get error() {
      if (!error2) {
        error2 = new Err(issues.map((iss) => finalizeIssue(iss, ctx, config())));
        issues = void 0;
        ctx = void 0;
      }
      return error2;
    },
    set error(e) {
      error2 = e;
      issues = void 0;
      ctx = void 0;
    }
  };
}
var _safeParseAsync = (_Err) => async (schema, value, _ctx) => {
  const ctx = _ctx ? { ..._ctx, async: true } : { async: true };
  let result = schema._zod.run({ value, issues: [] }, ctx);
  if (result instanceof Promise)
    result = await result;
  return result.issues.length ? failure(_Err, result.issues, ctx) : { success: true, data: result.value };
};
var COMPILE_INVALID = /* @__PURE__ */ Symbol.for("zod.compile.invalid");
var COMPILE_FALLBACK = /* @__PURE__ */ Symbol.for("zod.compile.fallback");
var validate = ((schema, value, _ctx) => {
  const validator = schema._zod.bag.validator;
  if (validator !== void 0) {
    if (validator(value) !== COMPILE_INVALID)
      return true;
    if (validator.definite === true && _ctx === void 0)
      return false;
  }
  return validateFallback(schema, value, _ctx);
});
function validateFallback(schema, value, _ctx) {
  const ctx = _ctx ? { ..._ctx, async: false, abortEarly: true } : { async: false, abortEarly: true };
  const fallbackRun = schema._zod.bag.fallbackRun;
  let result;
  if (fallbackRun) {
    ctx[COMPILE_FALLBACK] = true;
    result = fallbackRun({ value, issues: [] }, ctx);
  } else {
    result = schema._zod.run({ value, issues: [] }, ctx);
  }
  if (result instanceof Promise) {
    throw new $ZodAsyncError();
  }
  return result.issues.length === 0;
}
var validateAsync = async (schema, value, _ctx) => {
  const ctx = _ctx ? { ..._ctx, async: true, abortEarly: true } : { async: true, abortEarly: true };
  let result = schema._zod.run({ value, issues: [] }, ctx);
  if (result instanceof Promise)
    result = await result;
  return result.issues.length === 0;
};
var _encode = (_Err) => {
  const parse3 = _parse(_Err);
  const fn = (schema, value, _ctx, _params) => {
    const ctx = _ctx ? { ..._ctx, direction: "backward" } : { direction: "backward" };
    return parse3(schema, value, ctx, finalizeParams(fn, _params));
  };
  return fn;
};
var _decode = (_Err) => {
  const parse3 = _parse(_Err);
  const fn = (schema, value, _ctx, _params) => {
    return parse3(schema, value, _ctx, finalizeParams(fn, _params));
  };
  return fn;
};
var _encodeAsync = (_Err) => {
  const parseAsync2 = _parseAsync(_Err);
  const fn = async (schema, value, _ctx, _params) => {
    const ctx = _ctx ? { ..._ctx, direction: "backward" } : { direction: "backward" };
    return await parseAsync2(schema, value, ctx, finalizeParams(fn, _params));
  };
  return fn;
};
var _decodeAsync = (_Err) => {
  const parseAsync2 = _parseAsync(_Err);
  const fn = async (schema, value, _ctx, _params) => {
    return await parseAsync2(schema, value, _ctx, finalizeParams(fn, _params));
  };
  return fn;
};
var _safeEncode = (_Err) => (schema, value, _ctx) => {
  const ctx = _ctx ? { ..._ctx, direction: "backward" } : { direction: "backward" };
  return _safeParse(_Err)(schema, value, ctx);
};
var _safeDecode = (_Err) => (schema, value, _ctx) => {
  return _safeParse(_Err)(schema, value, _ctx);
};
var _safeEncodeAsync = (_Err) => async (schema, value, _ctx) => {
  const ctx = _ctx ? { ..._ctx, direction: "backward" } : { direction: "backward" };
  return _safeParseAsync(_Err)(schema, value, ctx);
};
var _safeDecodeAsync = (_Err) => async (schema, value, _ctx) => {
  return _safeParseAsync(_Err)(schema, value, _ctx);
};

// node_modules/zod/v4/core/regexes.js
var cuid = /^[cC][0-9a-z]{6,}$/;
var cuid2 = /^[0-9a-z]+$/;
var ulid = /^[0-7][0-9A-HJKMNP-TV-Za-hjkmnp-tv-z]{25}$/;
var xid = /^[0-9a-vA-V]{20}$/;
var ksuid = /^[A-Za-z0-9]{27}$/;
var nanoid = /^[a-zA-Z0-9_-]{21}$/;
function nanoidOfLength(length) {
  return new RegExp(`^[a-zA-Z0-9_-]{${length}}$`);
}
var duration = /^P(?:(\d+W)|(?!.*W)(?=\d|T\d)(\d+Y)?(\d+M)?(\d+D)?(T(?=\d)(\d+H)?(\d+M)?(\d+([.,]\d+)?S)?)?)$/;
var guid = /^([0-9a-fA-F]{8}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{12})$/;
var uuid = (version2) => {
  if (!version2)
    return /^([0-9a-fA-F]{8}-[0-9a-fA-F]{4}-[1-8][0-9a-fA-F]{3}-[89abAB][0-9a-fA-F]{3}-[0-9a-fA-F]{12}|00000000-0000-0000-0000-000000000000|ffffffff-ffff-ffff-ffff-ffffffffffff)$/;
  return new RegExp(`^([0-9a-fA-F]{8}-[0-9a-fA-F]{4}-${version2}[0-9a-fA-F]{3}-[89abAB][0-9a-fA-F]{3}-[0-9a-fA-F]{12})$`);
};
var email = /^(?:[A-Za-z0-9_'+\-]+\.)*[A-Za-z0-9_'+\-]*[A-Za-z0-9_+-]@(?:[A-Za-z0-9][A-Za-z0-9\-]*\.)+[A-Za-z]{2,}$/;
var _emoji = `^(?=[\\s\\S]*[\\p{Extended_Pictographic}\\p{Regional_Indicator}\\u20E3])[\\p{Extended_Pictographic}\\p{Emoji_Component}]+$`;
function emoji() {
  return new RegExp(_emoji, "u");
}
var ipv4 = /^(?:(?:25[0-5]|2[0-4][0-9]|1[0-9][0-9]|[1-9][0-9]|[0-9])\.){3}(?:25[0-5]|2[0-4][0-9]|1[0-9][0-9]|[1-9][0-9]|[0-9])$/;
var ipv6 = /^(([0-9a-fA-F]{1,4}:){7}[0-9a-fA-F]{1,4}|([0-9a-fA-F]{1,4}:){1,7}:|([0-9a-fA-F]{1,4}:){1,6}:[0-9a-fA-F]{1,4}|([0-9a-fA-F]{1,4}:){1,5}(:[0-9a-fA-F]{1,4}){1,2}|([0-9a-fA-F]{1,4}:){1,4}(:[0-9a-fA-F]{1,4}){1,3}|([0-9a-fA-F]{1,4}:){1,3}(:[0-9a-fA-F]{1,4}){1,4}|([0-9a-fA-F]{1,4}:){1,2}(:[0-9a-fA-F]{1,4}){1,5}|[0-9a-fA-F]{1,4}:((:[0-9a-fA-F]{1,4}){1,6})|:((:[0-9a-fA-F]{1,4}){1,7}|:))$/;
var cidrv4 = /^((25[0-5]|2[0-4][0-9]|1[0-9][0-9]|[1-9][0-9]|[0-9])\.){3}(25[0-5]|2[0-4][0-9]|1[0-9][0-9]|[1-9][0-9]|[0-9])\/([0-9]|[1-2][0-9]|3[0-2])$/;
var cidrv6 = /^(([0-9a-fA-F]{1,4}:){7}[0-9a-fA-F]{1,4}|([0-9a-fA-F]{1,4}:){1,7}:|([0-9a-fA-F]{1,4}:){1,6}:[0-9a-fA-F]{1,4}|([0-9a-fA-F]{1,4}:){1,5}(:[0-9a-fA-F]{1,4}){1,2}|([0-9a-fA-F]{1,4}:){1,4}(:[0-9a-fA-F]{1,4}){1,3}|([0-9a-fA-F]{1,4}:){1,3}(:[0-9a-fA-F]{1,4}){1,4}|([0-9a-fA-F]{1,4}:){1,2}(:[0-9a-fA-F]{1,4}){1,5}|[0-9a-fA-F]{1,4}:((:[0-9a-fA-F]{1,4}){1,6})|:((:[0-9a-fA-F]{1,4}){1,7}|:))\/(12[0-8]|1[01][0-9]|[1-9]?[0-9])$/;
var base64 = /^$|^(?:[0-9a-zA-Z+/]{4})*(?:(?:[0-9a-zA-Z+/]{2}==)|(?:[0-9a-zA-Z+/]{3}=))?$/;
var base64url = /^(?:[A-Za-z0-9_-]{4})*(?:[A-Za-z0-9_-]{2,3})?$/;
var httpProtocol = /^https?$/;
var e164 = /^\+[1-9]\d{6,14}$/;
var dateSource = `(?:(?:\\d\\d[2468][048]|\\d\\d[13579][26]|\\d\\d0[48]|[02468][048]00|[13579][26]00)-02-29|\\d{4}-(?:(?:0[13578]|1[02])-(?:0[1-9]|[12]\\d|3[01])|(?:0[469]|11)-(?:0[1-9]|[12]\\d|30)|(?:02)-(?:0[1-9]|1\\d|2[0-8])))`;
function anchor(source) {
  return new RegExp(`^${source}$`);
}
var date2 = /* @__PURE__ */ anchor(dateSource);
function timeSource(args) {
  const hhmm = `(?:[01]\\d|2[0-3]):[0-5]\\d`;
  const regex = typeof args.precision === "number" ? args.precision === -1 ? `${hhmm}` : args.precision === 0 ? `${hhmm}:[0-5]\\d` : `${hhmm}:[0-5]\\d\\.\\d{${args.precision}}` : args.seconds ? `${hhmm}:[0-5]\\d(?:\\.\\d+)?` : `${hhmm}(?::[0-5]\\d(?:\\.\\d+)?)?`;
  return regex;
}
function time2(args) {
  return new RegExp(`^${timeSource(args)}$`);
}
function datetime2(args) {
  const opts = ["Z"];
  if (args.offset)
    opts.push(`([+-](?:[01]\\d|2[0-3]):[0-5]\\d)`);
  const qualified = `${timeSource({ precision: args.precision, seconds: true })}(?:${opts.join("|")})`;
  const timeRegex = args.local ? `${qualified}|${timeSource({ precision: args.precision })}` : qualified;
  return new RegExp(`^${dateSource}T(?:${timeRegex})$`);
}
var anyString = /^[\s\S]{0,}$/;
var number2 = /^-?\d+(?:\.\d+)?$/;
var _null = /^null$/i;
var lowercase = /^[^A-Z]*$/;
var uppercase = /^[^a-z]*$/;

// node_modules/zod/v4/core/checks.js
var $ZodCheck = /* @__PURE__ */ $constructor("$ZodCheck", (inst, def) => {
  var _a3;
  inst._zod ?? (inst._zod = {});
  inst._zod.def = def;
  (_a3 = inst._zod).onattach ?? (_a3.onattach = []);
});
var _whenHasLength = (payload) => {
  const val = payload.value;
  return !nullish(val) && val.length !== void 0;
};
var numericOriginMap = {
  number: "number",
  bigint: "bigint",
  object: "date"
};
var $ZodCheckLessThan = /* @__PURE__ */ $constructor("$ZodCheckLessThan", (inst, def) => {
  $ZodCheck.init(inst, def);
  const origin = numericOriginMap[typeof def.value];
  inst._zod.check = (payload) => {
    if (def.inclusive ? payload.value <= def.value : payload.value < def.value) {
      return;
    }
    payload.issues.push({
      origin: numericOriginMap[typeof payload.value] ?? origin,
      code: "too_big",
      maximum: typeof def.value === "object" ? def.value.getTime() : def.value,
      input: payload.value,
      inclusive: def.inclusive,
      inst,
      continue: !def.abort
    });
  };
});
var $ZodCheckGreaterThan = /* @__PURE__ */ $constructor("$ZodCheckGreaterThan", (inst, def) => {
  $ZodCheck.init(inst, def);
  const origin = numericOriginMap[typeof def.value];
  inst._zod.check = (payload) => {
    if (def.inclusive ? payload.value >= def.value : payload.value > def.value) {
      return;
    }
    payload.issues.push({
      origin: numericOriginMap[typeof payload.value] ?? origin,
      code: "too_small",
      minimum: typeof def.value === "object" ? def.value.getTime() : def.value,
      input: payload.value,
      inclusive: def.inclusive,
      inst,
      continue: !def.abort
    });
  };
});
var $ZodCheckMultipleOf = /* @__PURE__ */ $constructor("$ZodCheckMultipleOf", (inst, def) => {
  $ZodCheck.init(inst, def);
  inst._zod.check = (payload) => {
    if (typeof payload.value !== typeof def.value)
      throw new Error("Cannot mix number and bigint in multiple_of check.");
    const isMultiple = typeof payload.value === "bigint" ? (
      // `value % 0n` throws, and nothing is a multiple of zero — the number branch already fails this way via NaN
      def.value !== BigInt(0) && payload.value % def.value === BigInt(0)
    ) : floatSafeRemainder(payload.value, def.value) === 0;
    if (isMultiple)
      return;
    payload.issues.push({
      origin: typeof payload.value,
      code: "not_multiple_of",
      divisor: def.value,
      input: payload.value,
      inst,
      continue: !def.abort
    });
  };
});
var $ZodCheckNumberFormat = /* @__PURE__ */ $constructor("$ZodCheckNumberFormat", (inst, def) => {
  $ZodCheck.init(inst, def);
  def.format = def.format || "float64";
  const isInt = def.format?.includes("int");
  const origin = isInt ? "int" : "number";
  const [minimum, maximum] = NUMBER_FORMAT_RANGES[def.format];
  inst._zod.check = (payload) => {
    const input = payload.value;
    if (isInt) {
      if (!Number.isInteger(input)) {
        payload.issues.push({
          expected: origin,
          format: def.format,
          code: "invalid_type",
          continue: false,
          input,
          inst
        });
        return;
      }
      if (!Number.isSafeInteger(input)) {
        if (input > 0) {
          payload.issues.push({
            input,
            code: "too_big",
            maximum: Number.MAX_SAFE_INTEGER,
            note: "Integers must be within the safe integer range.",
            inst,
            origin,
            inclusive: true,
            continue: !def.abort
          });
        } else {
          payload.issues.push({
            input,
            code: "too_small",
            minimum: Number.MIN_SAFE_INTEGER,
            note: "Integers must be within the safe integer range.",
            inst,
            origin,
            inclusive: true,
            continue: !def.abort
          });
        }
        return;
      }
    }
    if (input < minimum) {
      payload.issues.push({
        origin: "number",
        input,
        code: "too_small",
        minimum,
        inclusive: true,
        inst,
        continue: !def.abort
      });
    }
    if (input > maximum) {
      payload.issues.push({
        origin: "number",
        input,
        code: "too_big",
        maximum,
        inclusive: true,
        inst,
        continue: !def.abort
      });
    }
  };
});
var $ZodCheckMaxLength = /* @__PURE__ */ $constructor("$ZodCheckMaxLength", (inst, def) => {
  var _a3;
  $ZodCheck.init(inst, def);
  (_a3 = inst._zod.def).when ?? (_a3.when = _whenHasLength);
  inst._zod.check = (payload) => {
    const input = payload.value;
    const units = input.length;
    const length = typeof input === "string" && units > def.maximum ? codePointLength(input) : units;
    if (length <= def.maximum)
      return;
    const origin = getLengthableOrigin(input);
    payload.issues.push({
      origin,
      code: "too_big",
      maximum: def.maximum,
      inclusive: true,
      input,
      inst,
      continue: !def.abort
    });
  };
});
var $ZodCheckMinLength = /* @__PURE__ */ $constructor("$ZodCheckMinLength", (inst, def) => {
  var _a3;
  $ZodCheck.init(inst, def);
  (_a3 = inst._zod.def).when ?? (_a3.when = _whenHasLength);
  inst._zod.check = (payload) => {
    const input = payload.value;
    const units = input.length;
    const length = typeof input === "string" && units >= def.minimum && units < def.minimum * 2 ? codePointLength(input) : units;
    if (length >= def.minimum)
      return;
    const origin = getLengthableOrigin(input);
    payload.issues.push({
      origin,
      code: "too_small",
      minimum: def.minimum,
      inclusive: true,
      input,
      inst,
      continue: !def.abort
    });
  };
});
var $ZodCheckLengthEquals = /* @__PURE__ */ $constructor("$ZodCheckLengthEquals", (inst, def) => {
  var _a3;
  $ZodCheck.init(inst, def);
  (_a3 = inst._zod.def).when ?? (_a3.when = _whenHasLength);
  inst._zod.check = (payload) => {
    const input = payload.value;
    const units = input.length;
    const length = typeof input === "string" && units >= def.length && units <= def.length * 2 ? codePointLength(input) : units;
    if (length === def.length)
      return;
    const origin = getLengthableOrigin(input);
    const tooBig = length > def.length;
    payload.issues.push({
      origin,
      ...tooBig ? { code: "too_big", maximum: def.length } : { code: "too_small", minimum: def.length },
      inclusive: true,
      exact: true,
      input: payload.value,
      inst,
      continue: !def.abort
    });
  };
});
var $ZodCheckStringFormat = /* @__PURE__ */ $constructor("$ZodCheckStringFormat", (inst, def) => {
  var _a3, _b;
  $ZodCheck.init(inst, def);
  if (def.pattern)
    (_a3 = inst._zod).check ?? (_a3.check = (payload) => {
      def.pattern.lastIndex = 0;
      if (def.pattern.test(payload.value))
        return;
      payload.issues.push({
        origin: "string",
        code: "invalid_format",
        format: def.format,
        input: payload.value,
        ...def.pattern ? { pattern: def.pattern.toString() } : {},
        inst,
        continue: !def.abort
      });
    });
  else
    (_b = inst._zod).check ?? (_b.check = () => {
    });
});
var $ZodCheckRegex = /* @__PURE__ */ $constructor("$ZodCheckRegex", (inst, def) => {
  $ZodCheckStringFormat.init(inst, def);
  inst._zod.check = (payload) => {
    def.pattern.lastIndex = 0;
    if (def.pattern.test(payload.value))
      return;
    payload.issues.push({
      origin: "string",
      code: "invalid_format",
      format: "regex",
      input: payload.value,
      pattern: def.pattern.toString(),
      inst,
      continue: !def.abort
    });
  };
});
var $ZodCheckLowerCase = /* @__PURE__ */ $constructor("$ZodCheckLowerCase", (inst, def) => {
  def.pattern ?? (def.pattern = lowercase);
  $ZodCheckStringFormat.init(inst, def);
});
var $ZodCheckUpperCase = /* @__PURE__ */ $constructor("$ZodCheckUpperCase", (inst, def) => {
  def.pattern ?? (def.pattern = uppercase);
  $ZodCheckStringFormat.init(inst, def);
});
var $ZodCheckIncludes = /* @__PURE__ */ $constructor("$ZodCheckIncludes", (inst, def) => {
  $ZodCheck.init(inst, def);
  const escapedRegex = escapeRegex(def.includes);
  const pattern = new RegExp(typeof def.position === "number" ? `^.{${def.position},}${escapedRegex}` : escapedRegex);
  def.pattern = pattern;
  inst._zod.check = (payload) => {
    if (payload.value.includes(def.includes, def.position))
      return;
    payload.issues.push({
      origin: "string",
      code: "invalid_format",
      format: "includes",
      includes: def.includes,
      input: payload.value,
      inst,
      continue: !def.abort
    });
  };
});
var $ZodCheckStartsWith = /* @__PURE__ */ $constructor("$ZodCheckStartsWith", (inst, def) => {
  $ZodCheck.init(inst, def);
  const pattern = new RegExp(`^${escapeRegex(def.prefix)}.*`);
  def.pattern ?? (def.pattern = pattern);
  inst._zod.check = (payload) => {
    if (payload.value.startsWith(def.prefix))
      return;
    payload.issues.push({
      origin: "string",
      code: "invalid_format",
      format: "starts_with",
      prefix: def.prefix,
      input: payload.value,
      inst,
      continue: !def.abort
    });
  };
});
var $ZodCheckEndsWith = /* @__PURE__ */ $constructor("$ZodCheckEndsWith", (inst, def) => {
  $ZodCheck.init(inst, def);
  const pattern = new RegExp(`.*${escapeRegex(def.suffix)}$`);
  def.pattern ?? (def.pattern = pattern);
  inst._zod.check = (payload) => {
    if (payload.value.endsWith(def.suffix))
      return;
    payload.issues.push({
      origin: "string",
      code: "invalid_format",
      format: "ends_with",
      suffix: def.suffix,
      input: payload.value,
      inst,
      continue: !def.abort
    });
  };
});
var $ZodCheckOverwrite = /* @__PURE__ */ $constructor("$ZodCheckOverwrite", (inst, def) => {
  $ZodCheck.init(inst, def);
  inst._zod.check = (payload) => {
    payload.value = def.tx(payload.value);
  };
});

// node_modules/zod/v4/core/doc.js
var Doc = class {
  constructor(args = [], closed = {}) {
    this.content = [];
    this.indent = 0;
    this.args = args;
    this.closed = closed;
  }
  // the compiler catches a child's throw and keeps writing into this doc, so the indent has to unwind with it
  indented(fn) {
    this.indent += 1;
    try {
      fn(this);
    } finally {
      this.indent -= 1;
    }
  }
  write(arg) {
    if (typeof arg === "function") {
      arg(this, { execution: "sync" });
      arg(this, { execution: "async" });
      return;
    }
    const content = arg;
    const lines = content.split("\n").filter((x) => x);
    const minIndent = Math.min(...lines.map((x) => x.length - x.trimStart().length));
    const dedented = lines.map((x) => x.slice(minIndent)).map((x) => " ".repeat(this.indent * 2) + x);
    for (const line2 of dedented) {
      this.content.push(line2);
    }
  }
  compile() {
    const F2 = Function;
    const content = this?.content ?? [``];
    const factory = new F2(...Object.keys(this.closed), `return function (${this.args.join(", ")}) {
${content.join("\n")}
};`);
    return factory(...Object.values(this.closed));
  }
};

// node_modules/zod/v4/core/versions.js
var version = {
  major: 4,
  minor: 6,
  patch: 7
};

// node_modules/zod/v4/core/schemas.js
var $ZodType = /* @__PURE__ */ $constructor("$ZodType", (inst, def) => {
  var _a3;
  inst ?? (inst = {});
  inst._zod.def = def;
  inst._zod.bag = inst._zod.bag || {};
  inst._zod.version = version;
  const defChecks = inst._zod.def.checks;
  const checks2 = inst._zod.traits.has("$ZodCheck") ? [inst, ...defChecks ?? []] : defChecks?.length ? [...defChecks] : [];
  for (const ch of checks2) {
    for (const fn of ch._zod.onattach) {
      fn(inst);
    }
  }
  if (checks2.length === 0) {
    (_a3 = inst._zod).deferred ?? (_a3.deferred = []);
    inst._zod.deferred?.push(() => {
      inst._zod.run = inst._zod.parse;
    });
  } else {
    const runChecks = (payload, checks3, ctx) => {
      if (payload.memo)
        return payload;
      let isAborted = aborted(payload);
      let asyncResult;
      for (const ch of checks3) {
        if (ch._zod.def.when) {
          if (explicitlyAborted(payload))
            continue;
          const shouldRun = ch._zod.def.when(payload);
          if (!shouldRun)
            continue;
        } else if (isAborted) {
          continue;
        }
        const currLen = payload.issues.length;
        const _ = ch._zod.check(payload);
        if (_ instanceof Promise && ctx?.async === false) {
          throw new $ZodAsyncError();
        }
        if (asyncResult || _ instanceof Promise) {
          asyncResult = (asyncResult ?? Promise.resolve()).then(async () => {
            await _;
            const nextLen = payload.issues.length;
            if (nextLen === currLen)
              return;
            attachSchema(payload.issues, currLen, inst);
            if (!isAborted)
              isAborted = aborted(payload, currLen);
          });
        } else {
          const nextLen = payload.issues.length;
          if (nextLen === currLen)
            continue;
          attachSchema(payload.issues, currLen, inst);
          if (!isAborted)
            isAborted = aborted(payload, currLen);
        }
      }
      if (asyncResult) {
        return asyncResult.then(() => {
          return payload;
        });
      }
      return payload;
    };
    const handleCanaryResult = (canary, payload, ctx) => {
      if (aborted(canary)) {
        canary.aborted = true;
        return canary;
      }
      const checkResult = runChecks(payload, checks2, ctx);
      if (checkResult instanceof Promise) {
        if (ctx.async === false)
          throw new $ZodAsyncError();
        return checkResult.then((checkResult2) => inst._zod.parse(checkResult2, ctx));
      }
      return inst._zod.parse(checkResult, ctx);
    };
    inst._zod.run = (payload, ctx) => {
      if (ctx.skipChecks) {
        return inst._zod.parse(payload, ctx);
      }
      if (ctx.direction === "backward") {
        const canary = inst._zod.parse({ value: payload.value, issues: [] }, { ...ctx, skipChecks: true });
        if (canary instanceof Promise) {
          return canary.then((canary2) => {
            return handleCanaryResult(canary2, payload, ctx);
          });
        }
        return handleCanaryResult(canary, payload, ctx);
      }
      const result = inst._zod.parse(payload, ctx);
      if (result instanceof Promise) {
        if (ctx.async === false)
          throw new $ZodAsyncError();
        return result.then((result2) => runChecks(result2, checks2, ctx));
      }
      return runChecks(result, checks2, ctx);
    };
  }
}, {
  // Wrappers extend this by installing a richer factory over it; reading it eagerly would defeat the laziness.
  get "~standard"() {
    return hide(this, "~standard", standardProps(this));
  },
  set "~standard"(value) {
    own(this, "~standard", value);
  }
});
var toStandardResult = (r, ctx) => r.issues.length ? { issues: r.issues.map((iss) => finalizeIssue(iss, ctx, config())) } : { value: r.value };
async function validateAsync2(inst, value) {
  const ctx = { async: true };
  return toStandardResult(await inst._zod.run({ value, issues: [] }, ctx), ctx);
}
function standardProps(inst) {
  return {
    validate: (value) => {
      const ctx = { async: false };
      try {
        const r = inst._zod.run({ value, issues: [] }, ctx);
        if (!(r instanceof Promise))
          return toStandardResult(r, ctx);
      } catch (_) {
      }
      return validateAsync2(inst, value);
    },
    vendor: "zod",
    version: 1
  };
}
var $ZodString = /* @__PURE__ */ $constructor("$ZodString", (inst, def) => {
  $ZodType.init(inst, def);
  inst._zod.pattern = def.pattern ?? anyString;
  inst._zod.parse = (payload, _) => {
    if (def.coerce)
      try {
        payload.value = String(payload.value);
      } catch (_2) {
      }
    if (typeof payload.value === "string")
      return payload;
    payload.issues.push({
      expected: "string",
      code: "invalid_type",
      input: payload.value,
      inst
    });
    return payload;
  };
});
var $ZodStringFormat = /* @__PURE__ */ $constructor("$ZodStringFormat", (inst, def) => {
  $ZodCheckStringFormat.init(inst, def);
  $ZodString.init(inst, def);
});
var $ZodGUID = /* @__PURE__ */ $constructor("$ZodGUID", (inst, def) => {
  def.pattern ?? (def.pattern = guid);
  $ZodStringFormat.init(inst, def);
});
var $ZodUUID = /* @__PURE__ */ $constructor("$ZodUUID", (inst, def) => {
  if (def.version) {
    const versionMap = {
      v1: 1,
      v2: 2,
      v3: 3,
      v4: 4,
      v5: 5,
      v6: 6,
      v7: 7,
      v8: 8
    };
    const v = versionMap[def.version];
    if (v === void 0)
      throw new Error(`Invalid UUID version: "${def.version}"`);
    def.pattern ?? (def.pattern = uuid(v));
  } else
    def.pattern ?? (def.pattern = uuid());
  $ZodStringFormat.init(inst, def);
});
var $ZodEmail = /* @__PURE__ */ $constructor("$ZodEmail", (inst, def) => {
  def.pattern ?? (def.pattern = email);
  $ZodStringFormat.init(inst, def);
});
var URL_BAD_FORMAT = 1;
var URL_UNPARSEABLE = 2;
function canParseURL(input) {
  try {
    if (typeof URL !== "undefined" && typeof URL.canParse === "function")
      return URL.canParse(input);
    new URL(input);
    return true;
  } catch {
    return false;
  }
}
function validateURL(trimmed, def) {
  if (!("normalize" in def) && !("hostname" in def) && !("protocol" in def)) {
    return canParseURL(trimmed) || URL_UNPARSEABLE;
  }
  return parseURLObject(trimmed, def);
}
function parseURLObject(trimmed, def) {
  if (!def.normalize && def.protocol?.source === httpProtocol.source && !/^https?:\/\//i.test(trimmed)) {
    return URL_BAD_FORMAT;
  }
  try {
    if (typeof URL !== "undefined") {
      const URLStatic = URL;
      if (typeof URLStatic.parse === "function")
        return URLStatic.parse(trimmed) ?? URL_UNPARSEABLE;
    }
    return new URL(trimmed);
  } catch {
    return URL_UNPARSEABLE;
  }
}
var asciiTabOrNewline = /[\t\n\r]/g;
function stripTabAndNewline(value) {
  return value.replace(asciiTabOrNewline, "");
}
function urlHostnameOk(url, hostname) {
  hostname.lastIndex = 0;
  return hostname.test(url.hostname);
}
function urlProtocolOk(url, protocol) {
  protocol.lastIndex = 0;
  return protocol.test(url.protocol.endsWith(":") ? url.protocol.slice(0, -1) : url.protocol);
}
var $ZodURL = /* @__PURE__ */ $constructor("$ZodURL", (inst, def) => {
  $ZodStringFormat.init(inst, def);
  inst._zod.check = (payload) => {
    try {
      const trimmed = payload.value.trim();
      const url = validateURL(trimmed, def);
      if (url === URL_BAD_FORMAT) {
        payload.issues.push({
          code: "invalid_format",
          format: "url",
          note: "Invalid URL format",
          input: payload.value,
          inst,
          continue: !def.abort
        });
        return;
      }
      if (url === URL_UNPARSEABLE) {
        payload.issues.push({
          code: "invalid_format",
          format: "url",
          input: payload.value,
          inst,
          continue: !def.abort
        });
        return;
      }
      if (url === true) {
        payload.value = stripTabAndNewline(trimmed);
        return;
      }
      if (def.hostname && !urlHostnameOk(url, def.hostname)) {
        payload.issues.push({
          code: "invalid_format",
          format: "url",
          note: "Invalid hostname",
          pattern: def.hostname.source,
          input: payload.value,
          inst,
          continue: !def.abort
        });
      }
      if (def.protocol && !urlProtocolOk(url, def.protocol)) {
        payload.issues.push({
          code: "invalid_format",
          format: "url",
          note: "Invalid protocol",
          pattern: def.protocol.source,
          input: payload.value,
          inst,
          continue: !def.abort
        });
      }
      payload.value = def.normalize ? url.href : stripTabAndNewline(trimmed);
      return;
    } catch (_) {
      payload.issues.push({
        code: "invalid_format",
        format: "url",
        input: payload.value,
        inst,
        continue: !def.abort
      });
    }
  };
});
var $ZodEmoji = /* @__PURE__ */ $constructor("$ZodEmoji", (inst, def) => {
  def.pattern ?? (def.pattern = emoji());
  $ZodStringFormat.init(inst, def);
});
var $ZodNanoID = /* @__PURE__ */ $constructor("$ZodNanoID", (inst, def) => {
  if (def.length !== void 0 && (!Number.isInteger(def.length) || def.length < 1))
    throw new Error(`Invalid nanoid length: ${def.length}`);
  def.pattern ?? (def.pattern = def.length === void 0 ? nanoid : nanoidOfLength(def.length));
  $ZodStringFormat.init(inst, def);
});
var $ZodCUID = /* @__PURE__ */ $constructor("$ZodCUID", (inst, def) => {
  def.pattern ?? (def.pattern = cuid);
  $ZodStringFormat.init(inst, def);
});
var $ZodCUID2 = /* @__PURE__ */ $constructor("$ZodCUID2", (inst, def) => {
  def.pattern ?? (def.pattern = cuid2);
  $ZodStringFormat.init(inst, def);
});
var $ZodULID = /* @__PURE__ */ $constructor("$ZodULID", (inst, def) => {
  def.pattern ?? (def.pattern = ulid);
  $ZodStringFormat.init(inst, def);
});
var $ZodXID = /* @__PURE__ */ $constructor("$ZodXID", (inst, def) => {
  def.pattern ?? (def.pattern = xid);
  $ZodStringFormat.init(inst, def);
});
var $ZodKSUID = /* @__PURE__ */ $constructor("$ZodKSUID", (inst, def) => {
  def.pattern ?? (def.pattern = ksuid);
  $ZodStringFormat.init(inst, def);
});
var $ZodISODateTime = /* @__PURE__ */ $constructor("$ZodISODateTime", (inst, def) => {
  def.pattern ?? (def.pattern = datetime2(def));
  $ZodStringFormat.init(inst, def);
});
var $ZodISODate = /* @__PURE__ */ $constructor("$ZodISODate", (inst, def) => {
  def.pattern ?? (def.pattern = date2);
  $ZodStringFormat.init(inst, def);
});
var $ZodISOTime = /* @__PURE__ */ $constructor("$ZodISOTime", (inst, def) => {
  def.pattern ?? (def.pattern = time2(def));
  $ZodStringFormat.init(inst, def);
});
var $ZodISODuration = /* @__PURE__ */ $constructor("$ZodISODuration", (inst, def) => {
  def.pattern ?? (def.pattern = duration);
  $ZodStringFormat.init(inst, def);
});
var $ZodIPv4 = /* @__PURE__ */ $constructor("$ZodIPv4", (inst, def) => {
  def.pattern ?? (def.pattern = ipv4);
  $ZodStringFormat.init(inst, def);
});
var ipv6Alphabet = /^[0-9a-fA-F:.]+$/;
function isValidIPv6(value) {
  if (!ipv6Alphabet.test(value))
    return false;
  return canParseURL(`http://[${value}]`);
}
var $ZodIPv6 = /* @__PURE__ */ $constructor("$ZodIPv6", (inst, def) => {
  def.pattern ?? (def.pattern = ipv6);
  $ZodStringFormat.init(inst, def);
  inst._zod.check = (payload) => {
    if (!isValidIPv6(payload.value)) {
      payload.issues.push({
        code: "invalid_format",
        format: "ipv6",
        input: payload.value,
        inst,
        continue: !def.abort
      });
    }
  };
});
var $ZodCIDRv4 = /* @__PURE__ */ $constructor("$ZodCIDRv4", (inst, def) => {
  def.pattern ?? (def.pattern = cidrv4);
  $ZodStringFormat.init(inst, def);
});
function isValidCIDRv6(value) {
  const parts = value.split("/");
  if (parts.length !== 2)
    return false;
  const [address, prefix] = parts;
  if (!prefix)
    return false;
  const prefixNum = Number(prefix);
  if (`${prefixNum}` !== prefix)
    return false;
  if (prefixNum < 0 || prefixNum > 128)
    return false;
  return isValidIPv6(address);
}
var $ZodCIDRv6 = /* @__PURE__ */ $constructor("$ZodCIDRv6", (inst, def) => {
  def.pattern ?? (def.pattern = cidrv6);
  $ZodStringFormat.init(inst, def);
  inst._zod.check = (payload) => {
    if (!isValidCIDRv6(payload.value)) {
      payload.issues.push({
        code: "invalid_format",
        format: "cidrv6",
        input: payload.value,
        inst,
        continue: !def.abort
      });
    }
  };
});
function isValidBase64(data) {
  if (data === "")
    return true;
  if (/\s/.test(data))
    return false;
  if (data.length % 4 !== 0)
    return false;
  try {
    atob(data);
    return true;
  } catch {
    return false;
  }
}
var base64Charset = /^[0-9a-zA-Z+/]*={0,2}$/;
var $ZodBase64 = /* @__PURE__ */ $constructor("$ZodBase64", (inst, def) => {
  def.pattern ?? (def.pattern = base64Charset);
  $ZodStringFormat.init(inst, def);
  inst._zod.check = (payload) => {
    if (isValidBase64(payload.value))
      return;
    payload.issues.push({
      code: "invalid_format",
      format: "base64",
      input: payload.value,
      inst,
      continue: !def.abort
    });
  };
});
var base64urlCharset = /^[A-Za-z0-9_-]*$/;
function isValidBase64URL(data) {
  if (!base64urlCharset.test(data))
    return false;
  const base642 = data.replace(/[-_]/g, (c) => c === "-" ? "+" : "/");
  const padded = base642.padEnd(Math.ceil(base642.length / 4) * 4, "=");
  return isValidBase64(padded);
}
var $ZodBase64URL = /* @__PURE__ */ $constructor("$ZodBase64URL", (inst, def) => {
  def.pattern ?? (def.pattern = base64urlCharset);
  $ZodStringFormat.init(inst, def);
  inst._zod.check = (payload) => {
    if (isValidBase64URL(payload.value))
      return;
    payload.issues.push({
      code: "invalid_format",
      format: "base64url",
      input: payload.value,
      inst,
      continue: !def.abort
    });
  };
});
var $ZodE164 = /* @__PURE__ */ $constructor("$ZodE164", (inst, def) => {
  def.pattern ?? (def.pattern = e164);
  $ZodStringFormat.init(inst, def);
});
function isValidJWT(token, algorithm = null) {
  try {
    const tokensParts = token.split(".");
    if (tokensParts.length !== 3)
      return false;
    const [header] = tokensParts;
    if (!header)
      return false;
    const parsedHeader = JSON.parse(atob(header));
    if ("typ" in parsedHeader && parsedHeader?.typ !== "JWT")
      return false;
    if (!parsedHeader.alg)
      return false;
    if (algorithm && (!("alg" in parsedHeader) || parsedHeader.alg !== algorithm))
      return false;
    return true;
  } catch {
    return false;
  }
}
var $ZodJWT = /* @__PURE__ */ $constructor("$ZodJWT", (inst, def) => {
  $ZodStringFormat.init(inst, def);
  inst._zod.check = (payload) => {
    if (isValidJWT(payload.value, def.alg))
      return;
    payload.issues.push({
      code: "invalid_format",
      format: "jwt",
      input: payload.value,
      inst,
      continue: !def.abort
    });
  };
});
var $ZodNumber = /* @__PURE__ */ $constructor("$ZodNumber", (inst, def) => {
  $ZodType.init(inst, def);
  inst._zod.pattern = number2;
  inst._zod.parse = (payload, _ctx) => {
    if (def.coerce)
      try {
        payload.value = Number(payload.value);
      } catch (_) {
      }
    const input = payload.value;
    if (typeof input === "number" && !Number.isNaN(input) && Number.isFinite(input)) {
      return payload;
    }
    const received = typeof input === "number" ? Number.isNaN(input) ? "NaN" : !Number.isFinite(input) ? String(input) : void 0 : void 0;
    payload.issues.push({
      expected: "number",
      code: "invalid_type",
      input,
      inst,
      ...received ? { received } : {}
    });
    return payload;
  };
});
var $ZodNumberFormat = /* @__PURE__ */ $constructor("$ZodNumberFormat", (inst, def) => {
  $ZodCheckNumberFormat.init(inst, def);
  $ZodNumber.init(inst, def);
});
var $ZodNull = /* @__PURE__ */ $constructor("$ZodNull", (inst, def) => {
  $ZodType.init(inst, def);
  inst._zod.pattern = _null;
  inst._zod.values = /* @__PURE__ */ new Set([null]);
  inst._zod.parse = (payload, _ctx) => {
    const input = payload.value;
    if (input === null)
      return payload;
    payload.issues.push({
      expected: "null",
      code: "invalid_type",
      input,
      inst
    });
    return payload;
  };
});
var $ZodUnknown = /* @__PURE__ */ $constructor("$ZodUnknown", (inst, def) => {
  $ZodType.init(inst, def);
  inst._zod.parse = (payload) => payload;
});
var $ZodNever = /* @__PURE__ */ $constructor("$ZodNever", (inst, def) => {
  $ZodType.init(inst, def);
  inst._zod.parse = (payload, _ctx) => {
    payload.issues.push({
      expected: "never",
      code: "invalid_type",
      input: payload.value,
      inst
    });
    return payload;
  };
});
function capSize(inst, size) {
  const caps = sizeCaps(inst._zod.def.checks);
  if (!caps.length)
    return;
  const cap = Math.min(...caps.map((c) => c[0]));
  const parse3 = inst._zod.parse;
  inst._zod.parse = (payload, ctx) => {
    const n2 = size(payload.value);
    if (n2 > cap && !ctx?.skipChecks && ctx?.direction !== "backward") {
      for (const [max, ch] of sizeCaps(inst._zod.def.checks)) {
        if (n2 > max && ch._zod.def.when(payload)) {
          const start = payload.issues.length;
          ch._zod.check(payload);
          payload.issues[start].continue = false;
          attachSchema(payload.issues, start, inst);
          return payload;
        }
      }
    }
    return parse3(payload, ctx);
  };
}
var arraySize = (input) => Array.isArray(input) ? input.length : -1;
function handleArrayResult(result, final, index) {
  if (result.issues.length) {
    final.issues.push(...prefixIssues(index, result.issues));
  }
  final.value[index] = result.value;
}
var $ZodArray = /* @__PURE__ */ $constructor("$ZodArray", (inst, def) => {
  $ZodType.init(inst, def);
  const memo2 = globalConfig.memoizer;
  memo2?.attach(inst);
  inst._zod.parse = (payload, ctx) => {
    const input = payload.value;
    if (!Array.isArray(input)) {
      payload.issues.push({
        expected: "array",
        code: "invalid_type",
        input,
        inst
      });
      return payload;
    }
    payload.value = memo2 ? memo2.alloc(inst, payload, Array(input.length), ctx) : Array(input.length);
    const proms = [];
    const abortEarly = ctx?.abortEarly;
    for (let i = 0; i < input.length; i++) {
      const item = input[i];
      const result = def.element._zod.run({
        value: item,
        issues: []
      }, ctx);
      if (result instanceof Promise) {
        proms.push(result.then((result2) => handleArrayResult(result2, payload, i)));
      } else {
        handleArrayResult(result, payload, i);
        if (abortEarly && result.issues.length !== 0 && aborted(result))
          break;
      }
    }
    if (proms.length) {
      return Promise.all(proms).then(() => payload);
    }
    return payload;
  };
  capSize(inst, arraySize);
});
function handlePropertyResult(result, final, key, input, optin, optout) {
  const isPresent = key in input;
  const isOptionalOut = optout === "optional";
  if (!isPresent && isOptionalOut && optin === "optional") {
    return;
  }
  if (result.issues.length) {
    if (optin !== void 0 && isOptionalOut && !isPresent) {
      return;
    }
    final.issues.push(...prefixIssues(key, result.issues));
  }
  if (!isPresent && optin === void 0) {
    if (!result.issues.length) {
      final.issues.push({
        code: "invalid_type",
        expected: "nonoptional",
        input: void 0,
        path: [key]
      });
    }
    return;
  }
  if (result.value === void 0) {
    if (isPresent || optin === "defaulted" && !isOptionalOut) {
      final.value[key] = void 0;
    }
  } else {
    final.value[key] = result.value;
  }
}
var NO_SYMBOL_KEYS = [];
function normalizeDef(def) {
  const keys = Object.keys(def.shape);
  const ownSymbols = Object.getOwnPropertySymbols(def.shape);
  const symbolKeys = ownSymbols.length ? ownSymbols : NO_SYMBOL_KEYS;
  const allKeys = symbolKeys.length ? [...keys, ...symbolKeys] : keys;
  for (const k of allKeys) {
    if (!def.shape?.[k]?._zod?.traits?.has("$ZodType")) {
      throw new Error(`Invalid element at key "${String(k)}": expected a Zod schema`);
    }
  }
  const okeys = optionalKeys(def.shape);
  return {
    ...def,
    allKeys,
    symbolKeys,
    // string-only: handleCatchall matches it against `for...in`, which never yields a symbol
    keySet: new Set(keys),
    numKeys: keys.length,
    optionalKeys: new Set(okeys)
  };
}
function handleCatchall(proms, input, payload, ctx, def, inst, abortEarly) {
  const unrecognized = [];
  const keySet = def.keySet;
  const _catchall = def.catchall._zod;
  const t = _catchall.def.type;
  const optin = _catchall.optin;
  const optout = _catchall.optout;
  let seen2 = 0;
  for (const key in input) {
    if (abortEarly && payload.issues.length !== seen2) {
      if (aborted(payload, seen2))
        break;
      seen2 = payload.issues.length;
    }
    if (keySet.has(key))
      continue;
    if (key === "__proto__") {
      if (t === "never")
        unrecognized.push(key);
      continue;
    }
    if (t === "never") {
      unrecognized.push(key);
      continue;
    }
    const r = _catchall.run({ value: input[key], issues: [] }, ctx);
    if (r instanceof Promise) {
      proms.push(r.then((r2) => handlePropertyResult(r2, payload, key, input, optin, optout)));
    } else {
      handlePropertyResult(r, payload, key, input, optin, optout);
    }
  }
  if (unrecognized.length) {
    payload.issues.push({
      code: "unrecognized_keys",
      keys: unrecognized,
      input,
      inst,
      // Describes the shape of the input, not the validity of the parsed value, so it never aborts. The parse still fails; the schema's own checks just get to run first, and an enclosing intersection can reconcile the key against a sibling operand.
      continue: true
    });
  }
  if (!proms.length)
    return payload;
  return Promise.all(proms).then(() => {
    return payload;
  });
}
var $ZodObject = /* @__PURE__ */ $constructor("$ZodObject", (inst, def) => {
  $ZodType.init(inst, def);
  const desc = Object.getOwnPropertyDescriptor(def, "shape");
  const sh = desc?.get ? desc.get.raw : def.shape ?? {};
  if (sh) {
    const get = () => {
      const newSh = { ...sh };
      Object.defineProperty(def, "shape", { value: newSh });
      get.raw = newSh;
      return newSh;
    };
    get.raw = sh;
    Object.defineProperty(def, "shape", { get });
  }
  const _normalized = cached(() => normalizeDef(def));
  defineLazyInternal(inst, "propValues", (zod) => {
    const shape = zod.def.shape;
    const propValues = {};
    for (const key in shape) {
      const field3 = shape[key]._zod;
      if (field3.values) {
        if (!Object.prototype.hasOwnProperty.call(propValues, key)) {
          assignProp(propValues, key, /* @__PURE__ */ new Set());
        }
        for (const v of field3.values)
          propValues[key].add(v);
        if (field3.optin !== void 0)
          propValues[key].add(void 0);
      }
    }
    return propValues;
  });
  const isObject2 = isObject;
  const catchall = def.catchall;
  let value;
  const memo2 = globalConfig.memoizer;
  memo2?.attach(inst);
  inst._zod.parse = (payload, ctx) => {
    value ?? (value = _normalized.value);
    const input = payload.value;
    if (!isObject2(input)) {
      payload.issues.push({
        expected: "object",
        code: "invalid_type",
        input,
        inst
      });
      return payload;
    }
    payload.value = memo2 ? memo2.alloc(inst, payload, {}, ctx) : {};
    const proms = [];
    const shape = value.shape;
    const abortEarly = ctx?.abortEarly;
    let seen2 = payload.issues.length;
    for (const key of value.allKeys) {
      if (abortEarly && payload.issues.length !== seen2) {
        if (aborted(payload, seen2))
          break;
        seen2 = payload.issues.length;
      }
      if (key === "__proto__")
        continue;
      const el = shape[key];
      const optin = el._zod.optin;
      const optout = el._zod.optout;
      const r = el._zod.run({ value: input[key], issues: [] }, ctx);
      if (r instanceof Promise) {
        proms.push(r.then((r2) => handlePropertyResult(r2, payload, key, input, optin, optout)));
      } else {
        handlePropertyResult(r, payload, key, input, optin, optout);
      }
    }
    if (!catchall) {
      return proms.length ? Promise.all(proms).then(() => payload) : payload;
    }
    return handleCatchall(proms, input, payload, ctx, _normalized.value, inst, abortEarly === true);
  };
});
var $ZodObjectJIT = /* @__PURE__ */ $constructor("$ZodObjectJIT", (inst, def) => {
  $ZodObject.init(inst, def);
  const superParse = inst._zod.parse;
  const _normalized = cached(() => normalizeDef(def));
  const memo2 = globalConfig.memoizer;
  const generateFastpass = (shape) => {
    const normalized = _normalized.value;
    const syms = normalized.symbolKeys;
    const doc = new Doc(["payload", "ctx"], { shape, inst, memo: memo2, syms });
    const parseStr = (k) => `shape[${k}]._zod.run({ value: input[${k}], issues: [] }, ctx)`;
    const prefixStr = (id, k) => `
          let ${id}_ab = false;
          for (let i = 0; i < ${id}.issues.length; i++) {
            const iss = ${id}.issues[i];
            iss.path = iss.path ? [${k}, ...iss.path] : [${k}];
            payload.issues.push(iss);
            if (iss.continue !== true) ${id}_ab = true;
          }
          if (${id}_ab && ctx && ctx.abortEarly) {
            payload.value = newResult;
            return payload;
          }`;
    doc.write(`const input = payload.value;`);
    const ids = /* @__PURE__ */ Object.create(null);
    let counter = 0;
    for (const key of normalized.allKeys) {
      ids[key] = `key_${counter++}`;
    }
    doc.write(memo2 ? `const newResult = memo.alloc(inst, payload, {}, ctx);` : `const newResult = {};`);
    for (const key of normalized.allKeys) {
      if (key === "__proto__")
        continue;
      const id = ids[key];
      const k = typeof key === "symbol" ? `syms[${syms.indexOf(key)}]` : esc(key);
      const isPresent = `${k} in input`;
      const schema = shape[key];
      const optin = schema?._zod?.optin;
      const isOptionalIn = optin !== void 0;
      const isOptionalOut = schema?._zod?.optout === "optional";
      doc.write(`const ${id} = ${parseStr(k)};`);
      if (isOptionalIn && isOptionalOut) {
        const assign = optin === "optional" ? `${id}_present` : `${id}.value !== undefined || ${id}_present`;
        doc.write(`
        const ${id}_present = ${isPresent};
        if (!${id}.issues.length || ${id}_present) {
          if (${id}.issues.length) {${prefixStr(id, k)}
          }

          if (${assign}) {
            newResult[${k}] = ${id}.value;
          }
        }

      `);
      } else if (!isOptionalIn) {
        doc.write(`
        const ${id}_present = ${isPresent};
        if (${id}.issues.length) {${prefixStr(id, k)}
        }
        if (!${id}_present && !${id}.issues.length) {
          payload.issues.push({
            code: "invalid_type",
            expected: "nonoptional",
            input: undefined,
            path: [${k}]
          });
          if (ctx && ctx.abortEarly) {
            payload.value = newResult;
            return payload;
          }
        }

        if (${id}_present) {
          newResult[${k}] = ${id}.value;
        }

      `);
      } else {
        doc.write(`
        if (${id}.issues.length) {${prefixStr(id, k)}
        }
      `);
        if (optin === "defaulted") {
          doc.write(`newResult[${k}] = ${id}.value;`);
        } else {
          doc.write(`
        if (${id}.value !== undefined || ${isPresent}) {
          newResult[${k}] = ${id}.value;
        }
      `);
        }
      }
    }
    doc.write(`payload.value = newResult;`);
    doc.write(`return payload;`);
    return doc.compile();
  };
  let fastpass;
  const isObject2 = isObject;
  const jit = !globalConfig.jitless;
  const allowsEval2 = allowsEval;
  const fastEnabled = jit && allowsEval2.value;
  const catchall = def.catchall;
  let value;
  inst._zod.parse = (payload, ctx) => {
    value ?? (value = _normalized.value);
    const input = payload.value;
    if (!isObject2(input)) {
      payload.issues.push({
        expected: "object",
        code: "invalid_type",
        input,
        inst
      });
      return payload;
    }
    if (jit && fastEnabled && ctx?.async === false && ctx.jitless !== true) {
      if (!fastpass)
        fastpass = generateFastpass(def.shape);
      payload = fastpass(payload, ctx);
      if (!catchall)
        return payload;
      return handleCatchall([], input, payload, ctx, value, inst, ctx?.abortEarly === true);
    }
    return superParse(payload, ctx);
  };
});
function handleUnionResults(results, final, inst, ctx) {
  for (const result of results) {
    if (result.issues.length === 0) {
      final.value = result.value;
      return final;
    }
  }
  const nonaborted = results.filter((r) => !aborted(r));
  if (nonaborted.length === 1) {
    final.value = nonaborted[0].value;
    return nonaborted[0];
  }
  final.issues.push({
    code: "invalid_union",
    input: final.value,
    inst,
    errors: results.map((result) => result.issues.map((iss) => finalizeIssue(iss, ctx, config())))
  });
  return final;
}
var $ZodUnion = /* @__PURE__ */ $constructor("$ZodUnion", (inst, def) => {
  $ZodType.init(inst, def);
  defineLazyInternal(inst, "optin", (zod) => zod.def.options.some((o) => o._zod.optin === "defaulted") ? "defaulted" : zod.def.options.some((o) => o._zod.optin !== void 0) ? "optional" : void 0);
  defineLazyInternal(inst, "optout", (zod) => zod.def.options.some((o) => o._zod.optout === "optional") ? "optional" : void 0);
  defineLazyInternal(inst, "values", (zod) => {
    if (zod.def.options.every((o) => o._zod.values)) {
      return new Set(zod.def.options.flatMap((option2) => Array.from(option2._zod.values)));
    }
    return void 0;
  });
  defineLazyInternal(inst, "pattern", (zod) => {
    if (zod.def.options.every((o) => o._zod.pattern)) {
      const patterns2 = zod.def.options.map((o) => o._zod.pattern);
      return new RegExp(`^(${patterns2.map((p) => cleanRegex(p.source)).join("|")})$`);
    }
    return void 0;
  });
  const first = def.options.length === 1 ? def.options[0]._zod.run : null;
  inst._zod.parse = (payload, ctx) => {
    if (first) {
      return first(payload, ctx);
    }
    let async = false;
    const results = [];
    for (const option2 of def.options) {
      const result = option2._zod.run({
        value: payload.value,
        issues: []
      }, ctx);
      if (result instanceof Promise) {
        results.push(result);
        async = true;
      } else {
        if (result.issues.length === 0)
          return result;
        results.push(result);
      }
    }
    if (!async)
      return handleUnionResults(results, payload, inst, ctx);
    return Promise.all(results).then((results2) => {
      return handleUnionResults(results2, payload, inst, ctx);
    });
  };
});
var $ZodIntersection = /* @__PURE__ */ $constructor("$ZodIntersection", (inst, def) => {
  $ZodType.init(inst, def);
  inst._zod.parse = (payload, ctx) => {
    const input = payload.value;
    const left = def.left._zod.run({ value: input, issues: [] }, ctx);
    const right2 = def.right._zod.run({ value: input, issues: [] }, ctx);
    const async = left instanceof Promise || right2 instanceof Promise;
    if (async) {
      return Promise.all([left, right2]).then(([left2, right3]) => {
        return handleIntersectionResults(payload, left2, right3);
      });
    }
    return handleIntersectionResults(payload, left, right2);
  };
});
function mergeValues(a, b) {
  if (a === b) {
    return { valid: true, data: a };
  }
  if (a instanceof Date && b instanceof Date && +a === +b) {
    return { valid: true, data: a };
  }
  if (isPlainObject(a) && isPlainObject(b)) {
    const bKeys = Object.keys(b);
    const sharedKeys = Object.keys(a).filter((key) => bKeys.indexOf(key) !== -1);
    const newObj = { ...a, ...b };
    if (Object.prototype.hasOwnProperty.call(newObj, "__proto__"))
      delete newObj.__proto__;
    for (const key of sharedKeys) {
      if (key === "__proto__")
        continue;
      const sharedValue = mergeValues(a[key], b[key]);
      if (!sharedValue.valid) {
        return {
          valid: false,
          mergeErrorPath: [key, ...sharedValue.mergeErrorPath]
        };
      }
      newObj[key] = sharedValue.data;
    }
    return { valid: true, data: newObj };
  }
  if (Array.isArray(a) && Array.isArray(b)) {
    if (a.length !== b.length) {
      return { valid: false, mergeErrorPath: [] };
    }
    const newArray = [];
    for (let index = 0; index < a.length; index++) {
      const itemA = a[index];
      const itemB = b[index];
      const sharedValue = mergeValues(itemA, itemB);
      if (!sharedValue.valid) {
        return {
          valid: false,
          mergeErrorPath: [index, ...sharedValue.mergeErrorPath]
        };
      }
      newArray.push(sharedValue.data);
    }
    return { valid: true, data: newArray };
  }
  return { valid: false, mergeErrorPath: [] };
}
function handleIntersectionResults(result, left, right2) {
  const unrecKeys = /* @__PURE__ */ new Map();
  let unrecIssue;
  const keyIssues = /* @__PURE__ */ new Map();
  const collect = (iss, side) => {
    let keys;
    if (iss.code === "unrecognized_keys" && !iss.path?.length) {
      unrecIssue ?? (unrecIssue = iss);
      keys = iss.keys;
    } else if (iss.code === "invalid_key" && iss.origin === "record" && iss.path?.length === 1) {
      const k = String(iss.path[0]);
      if (!keyIssues.has(k))
        keyIssues.set(k, iss);
      keys = [k];
    } else {
      return false;
    }
    for (const k of keys) {
      if (!unrecKeys.has(k))
        unrecKeys.set(k, {});
      unrecKeys.get(k)[side] = true;
    }
    return true;
  };
  for (const iss of left.issues) {
    if (!collect(iss, "l"))
      result.issues.push(iss);
  }
  for (const iss of right2.issues) {
    if (!collect(iss, "r"))
      result.issues.push(iss);
  }
  const bothKeys = [...unrecKeys].filter(([, f]) => f.l && f.r).map(([k]) => k);
  if (bothKeys.length) {
    const aggregated = unrecIssue ? bothKeys.filter((k) => unrecIssue.keys.includes(k)) : [];
    if (aggregated.length)
      result.issues.push({ ...unrecIssue, keys: aggregated });
    for (const k of bothKeys) {
      if (!aggregated.includes(k) && keyIssues.has(k))
        result.issues.push(keyIssues.get(k));
    }
  }
  const merged = mergeValues(left.value, right2.value);
  if (!merged.valid) {
    if (aborted(result))
      return result;
    throw new Error(`Unmergable intersection. Error path: ${JSON.stringify(merged.mergeErrorPath)}`);
  }
  result.value = merged.data;
  return result;
}
var $ZodTuple = /* @__PURE__ */ $constructor("$ZodTuple", (inst, def) => {
  $ZodType.init(inst, def);
  const items = def.items;
  const memo2 = globalConfig.memoizer;
  memo2?.attach(inst);
  inst._zod.parse = (payload, ctx) => {
    const input = payload.value;
    if (!Array.isArray(input)) {
      payload.issues.push({
        input,
        inst,
        expected: "tuple",
        code: "invalid_type"
      });
      return payload;
    }
    payload.value = memo2 ? memo2.alloc(inst, payload, [], ctx) : [];
    const proms = [];
    const optinStart = getTupleOptStart(items, "optin");
    const optoutStart = getTupleOptStart(items, "optout");
    if (!def.rest) {
      if (input.length < optinStart) {
        payload.issues.push({
          code: "too_small",
          minimum: optinStart,
          inclusive: true,
          input,
          inst,
          origin: "array"
        });
        return payload;
      }
      if (input.length > items.length) {
        payload.issues.push({
          code: "too_big",
          maximum: items.length,
          inclusive: true,
          input,
          inst,
          origin: "array"
        });
      }
    }
    const itemResults = new Array(items.length);
    const abortEarly = def.rest ? ctx?.abortEarly : void 0;
    let itemAborted = false;
    for (let i = 0; i < items.length; i++) {
      const r = items[i]._zod.run({ value: input[i], issues: [] }, ctx);
      if (r instanceof Promise) {
        proms.push(r.then((rr) => {
          itemResults[i] = rr;
        }));
      } else {
        itemResults[i] = r;
        if (abortEarly && !itemAborted && r.issues.length)
          itemAborted = aborted(r);
      }
    }
    if (def.rest && !itemAborted) {
      let i = items.length - 1;
      const rest = input.slice(items.length);
      let seen2 = payload.issues.length;
      for (const el of rest) {
        if (abortEarly && payload.issues.length !== seen2) {
          if (aborted(payload, seen2))
            break;
          seen2 = payload.issues.length;
        }
        i++;
        const result = def.rest._zod.run({ value: el, issues: [] }, ctx);
        if (result instanceof Promise) {
          proms.push(result.then((r) => handleTupleResult(r, payload, i)));
        } else {
          handleTupleResult(result, payload, i);
        }
      }
    }
    if (proms.length) {
      return Promise.all(proms).then(() => handleTupleResults(itemResults, payload, items, input, optoutStart));
    }
    return handleTupleResults(itemResults, payload, items, input, optoutStart);
  };
});
function getTupleOptStart(items, key) {
  for (let i = items.length - 1; i >= 0; i--) {
    const omittable = key === "optin" ? items[i]._zod.optin !== void 0 : items[i]._zod.optout === "optional";
    if (!omittable)
      return i + 1;
  }
  return 0;
}
function handleTupleResult(result, final, index) {
  if (result.issues.length) {
    final.issues.push(...prefixIssues(index, result.issues));
  }
  final.value[index] = result.value;
}
function handleTupleResults(itemResults, final, items, input, optoutStart) {
  for (let i = 0; i < items.length; i++) {
    const r = itemResults[i];
    const isPresent = i < input.length;
    if (!isPresent && i >= optoutStart && items[i]._zod.optin === "optional") {
      final.value.length = i;
      break;
    }
    if (r.issues.length) {
      if (!isPresent && i >= optoutStart) {
        final.value.length = i;
        break;
      }
      final.issues.push(...prefixIssues(i, r.issues));
    }
    final.value[i] = r.value;
  }
  for (let i = final.value.length - 1; i >= input.length; i--) {
    if (items[i]._zod.optout === "optional" && final.value[i] === void 0) {
      final.value.length = i;
    } else {
      break;
    }
  }
  return final;
}
var $ZodEnum = /* @__PURE__ */ $constructor("$ZodEnum", (inst, def) => {
  $ZodType.init(inst, def);
  const values = getEnumValues(def.entries);
  const valuesSet = new Set(values);
  inst._zod.values = valuesSet;
  defineLazyInternal(inst, "pattern", (zod) => {
    const patternValues = getEnumValues(zod.def.entries).filter((k) => propertyKeyTypes.has(typeof k));
    return new RegExp(patternValues.length ? `^(${patternValues.map((o) => escapeRegex(o.toString())).join("|")})$` : "^[^\\s\\S]$");
  });
  inst._zod.parse = (payload, _ctx) => {
    const input = payload.value;
    if (valuesSet.has(input)) {
      return payload;
    }
    payload.issues.push({
      code: "invalid_value",
      values,
      input,
      inst
    });
    return payload;
  };
});
var $ZodTransform = /* @__PURE__ */ $constructor("$ZodTransform", (inst, def) => {
  $ZodType.init(inst, def);
  inst._zod.optin = "optional";
  globalConfig.memoizer?.guard(inst);
  inst._zod.parse = (payload, ctx) => {
    if (ctx.direction === "backward") {
      throw new $ZodEncodeError(inst.constructor.name);
    }
    const _out = def.transform(payload.value, payload);
    if (ctx.async) {
      const output = _out instanceof Promise ? _out : Promise.resolve(_out);
      return output.then((output2) => {
        payload.value = output2;
        return payload;
      });
    }
    if (_out instanceof Promise) {
      throw new $ZodAsyncError();
    }
    payload.value = _out;
    return payload;
  };
});
function handleOptionalResult(payload, result) {
  payload.value = result.issues.length ? void 0 : result.value;
  return payload;
}
var $ZodOptional = /* @__PURE__ */ $constructor("$ZodOptional", (inst, def) => {
  $ZodType.init(inst, def);
  defineLazyInternal(inst, "optin", (zod) => zod.def.innerType._zod.optin === "defaulted" ? "defaulted" : "optional");
  inst._zod.optout = "optional";
  defineLazyInternal(inst, "values", (zod) => {
    const values = zod.def.innerType._zod.values;
    return values ? /* @__PURE__ */ new Set([...values, void 0]) : void 0;
  });
  defineLazyInternal(inst, "pattern", (zod) => {
    const pattern = zod.def.innerType._zod.pattern;
    return pattern ? new RegExp(`^(${cleanRegex(pattern.source)})?$`) : void 0;
  });
  inst._zod.parse = (payload, ctx) => {
    if (payload.value === void 0) {
      if (def.innerType._zod.optin !== "defaulted")
        return payload;
      const result = def.innerType._zod.run({ value: payload.value, issues: [] }, ctx);
      if (result instanceof Promise)
        return result.then((result2) => handleOptionalResult(payload, result2));
      return handleOptionalResult(payload, result);
    }
    return def.innerType._zod.run(payload, ctx);
  };
});
var $ZodExactOptional = /* @__PURE__ */ $constructor("$ZodExactOptional", (inst, def) => {
  $ZodOptional.init(inst, def);
  defineLazyInternal(inst, "values", (zod) => zod.def.innerType._zod.values);
  defineLazyInternal(inst, "pattern", (zod) => zod.def.innerType._zod.pattern);
  inst._zod.parse = (payload, ctx) => {
    return def.innerType._zod.run(payload, ctx);
  };
});
var $ZodNullable = /* @__PURE__ */ $constructor("$ZodNullable", (inst, def) => {
  $ZodType.init(inst, def);
  defineLazyInternal(inst, "optin", (zod) => zod.def.innerType._zod.optin);
  defineLazyInternal(inst, "optout", (zod) => zod.def.innerType._zod.optout);
  defineLazyInternal(inst, "pattern", (zod) => {
    const pattern = zod.def.innerType._zod.pattern;
    return pattern ? new RegExp(`^(${cleanRegex(pattern.source)}|null)$`) : void 0;
  });
  defineLazyInternal(inst, "values", (zod) => {
    return zod.def.innerType._zod.values ? /* @__PURE__ */ new Set([...zod.def.innerType._zod.values, null]) : void 0;
  });
  inst._zod.parse = (payload, ctx) => {
    if (payload.value === null)
      return payload;
    return def.innerType._zod.run(payload, ctx);
  };
});
var $ZodDefault = /* @__PURE__ */ $constructor("$ZodDefault", (inst, def) => {
  $ZodType.init(inst, def);
  inst._zod.optin = "defaulted";
  defineLazyInternal(inst, "values", (zod) => zod.def.innerType._zod.values);
  inst._zod.parse = (payload, ctx) => {
    if (ctx.direction === "backward") {
      return def.innerType._zod.run(payload, ctx);
    }
    if (payload.value === void 0) {
      payload.value = def.defaultValue;
      return payload;
    }
    const result = def.innerType._zod.run(payload, ctx);
    if (result instanceof Promise) {
      return result.then((result2) => handleDefaultResult(result2, def));
    }
    return handleDefaultResult(result, def);
  };
});
function handleDefaultResult(payload, def) {
  if (payload.value === void 0) {
    payload.value = def.defaultValue;
  }
  return payload;
}
var $ZodPrefault = /* @__PURE__ */ $constructor("$ZodPrefault", (inst, def) => {
  $ZodType.init(inst, def);
  inst._zod.optin = "defaulted";
  defineLazyInternal(inst, "values", (zod) => zod.def.innerType._zod.values);
  inst._zod.parse = (payload, ctx) => {
    if (ctx.direction === "backward") {
      return def.innerType._zod.run(payload, ctx);
    }
    if (payload.value === void 0) {
      payload.value = def.defaultValue;
    }
    return def.innerType._zod.run(payload, ctx);
  };
});
var $ZodNonOptional = /* @__PURE__ */ $constructor("$ZodNonOptional", (inst, def) => {
  $ZodType.init(inst, def);
  defineLazyInternal(inst, "values", (zod) => {
    const v = zod.def.innerType._zod.values;
    return v ? new Set([...v].filter((x) => x !== void 0)) : void 0;
  });
  inst._zod.parse = (payload, ctx) => {
    const result = def.innerType._zod.run(payload, ctx);
    if (result instanceof Promise) {
      return result.then((result2) => handleNonOptionalResult(result2, inst));
    }
    return handleNonOptionalResult(result, inst);
  };
});
function handleNonOptionalResult(payload, inst) {
  if (!payload.issues.length && payload.value === void 0) {
    payload.issues.push({
      code: "invalid_type",
      expected: "nonoptional",
      input: payload.value,
      inst
    });
  }
  return payload;
}
function handleCatchResult(payload, result, def, ctx) {
  if (!result.issues.length) {
    payload.value = result.value;
    if (result.memo)
      payload.memo = true;
    return payload;
  }
  payload.value = def.catchValue({
    ...result,
    value: payload.value,
    error: {
      issues: result.issues.map((iss) => finalizeIssue(iss, ctx, config()))
    },
    input: payload.value
  });
  return payload;
}
var $ZodCatch = /* @__PURE__ */ $constructor("$ZodCatch", (inst, def) => {
  $ZodType.init(inst, def);
  defineLazyInternal(inst, "optin", (zod) => zod.def.innerType._zod.optin === "defaulted" ? "defaulted" : "optional");
  defineLazyInternal(inst, "optout", (zod) => zod.def.innerType._zod.optout);
  defineLazyInternal(inst, "values", (zod) => zod.def.innerType._zod.values);
  inst._zod.parse = (payload, ctx) => {
    if (ctx.direction === "backward") {
      return def.innerType._zod.run(payload, ctx);
    }
    const result = def.innerType._zod.run({ value: payload.value, issues: [] }, ctx);
    if (result instanceof Promise) {
      return result.then((result2) => handleCatchResult(payload, result2, def, ctx));
    }
    return handleCatchResult(payload, result, def, ctx);
  };
});
var $ZodPipe = /* @__PURE__ */ $constructor("$ZodPipe", (inst, def) => {
  $ZodType.init(inst, def);
  defineLazyInternal(inst, "values", (zod) => zod.def.in._zod.values);
  defineLazyInternal(inst, "optin", (zod) => zod.def.in._zod.optin);
  defineLazyInternal(inst, "optout", (zod) => zod.def.out._zod.optout);
  defineLazyInternal(inst, "propValues", (zod) => zod.def.in._zod.propValues);
  inst._zod.parse = (payload, ctx) => {
    if (ctx.direction === "backward") {
      const right2 = def.out._zod.run(payload, ctx);
      if (right2 instanceof Promise) {
        return right2.then((right3) => handlePipeResult(right3, def.in, ctx));
      }
      return handlePipeResult(right2, def.in, ctx);
    }
    const left = def.in._zod.run(payload, ctx);
    if (left instanceof Promise) {
      return left.then((left2) => handlePipeResult(left2, def.out, ctx));
    }
    return handlePipeResult(left, def.out, ctx);
  };
});
function handlePipeResult(left, next, ctx) {
  if (left.issues.some((iss) => iss.code !== "unrecognized_keys")) {
    left.aborted = true;
    return left;
  }
  return next._zod.run({ value: left.value, issues: left.issues }, ctx);
}
var $ZodReadonly = /* @__PURE__ */ $constructor("$ZodReadonly", (inst, def) => {
  $ZodType.init(inst, def);
  defineLazyInternal(inst, "propValues", (zod) => zod.def.innerType._zod.propValues);
  defineLazyInternal(inst, "values", (zod) => zod.def.innerType._zod.values);
  defineLazyInternal(inst, "optin", (zod) => zod.def.innerType?._zod?.optin);
  defineLazyInternal(inst, "optout", (zod) => zod.def.innerType?._zod?.optout);
  inst._zod.parse = (payload, ctx) => {
    if (ctx.direction === "backward") {
      return def.innerType._zod.run(payload, ctx);
    }
    const result = def.innerType._zod.run(payload, ctx);
    if (result instanceof Promise) {
      return result.then(handleReadonlyResult);
    }
    return handleReadonlyResult(result);
  };
});
function handleReadonlyResult(payload) {
  if (!payload.memo)
    payload.value = Object.freeze(payload.value);
  return payload;
}
var $ZodCustom = /* @__PURE__ */ $constructor("$ZodCustom", (inst, def) => {
  $ZodCheck.init(inst, def);
  $ZodType.init(inst, def);
  inst._zod.parse = (payload, _) => {
    return payload;
  };
  inst._zod.check = (payload) => {
    const input = payload.value;
    const r = def.fn(input);
    if (r instanceof Promise) {
      return r.then((r2) => handleRefineResult(r2, payload, input, inst));
    }
    handleRefineResult(r, payload, input, inst);
    return;
  };
});
function handleRefineResult(result, payload, input, inst) {
  if (!result) {
    const _iss = {
      code: "custom",
      input,
      inst,
      // incorporates params.error into issue reporting
      path: [...inst._zod.def.path ?? []],
      // incorporates params.error into issue reporting
      continue: !inst._zod.def.abort
      // params: inst._zod.def.params,
    };
    if (inst._zod.def.params)
      _iss.params = inst._zod.def.params;
    payload.issues.push(issue(_iss));
  }
}

// node_modules/zod/v4/core/memoizer.js
var $ZodCyclicError = class extends Error {
  constructor() {
    super(`Cannot parse a reference cycle that closes through a transform`);
    this.name = "ZodCyclicError";
  }
};
var STATE = "~memo";
var NO_ISSUES = [];
function isRef(value) {
  return value !== null && typeof value === "object";
}
function cloneIssues(issues) {
  return issues.map((iss) => iss.path ? { ...iss, path: iss.path.slice() } : { ...iss });
}
var recursive = /* @__PURE__ */ new WeakMap();
var NONE2 = 0;
var ASSUMED = 1;
var PROVEN = 2;
function isRecursive(inst, stack, resolve) {
  const cached2 = recursive.get(inst);
  if (cached2 !== void 0)
    return cached2 ? PROVEN : NONE2;
  if (stack.has(inst))
    return PROVEN;
  stack.add(inst);
  let result = NONE2;
  const check2 = (child) => {
    if (result !== PROVEN && child?._zod) {
      const answer = isRecursive(child, stack, resolve);
      if (answer > result)
        result = answer;
    }
  };
  const shape = (sh, spread) => {
    let answer = NONE2;
    for (const key of Reflect.ownKeys(sh)) {
      const desc = Object.getOwnPropertyDescriptor(sh, key);
      if (spread && !desc.enumerable)
        continue;
      const child = desc.get ? ASSUMED : desc.value?._zod ? isRecursive(desc.value, stack, resolve) : NONE2;
      if (child > answer)
        answer = child;
    }
    return answer;
  };
  const merge2 = (answer) => {
    if (answer > result)
      result = answer;
  };
  const def = inst._zod.def;
  const kind = def.type;
  switch (kind) {
    case "object": {
      const raw = rawShape(def);
      merge2(raw ? shape(raw, true) : ASSUMED);
      check2(def.catchall);
      break;
    }
    case "array":
      check2(def.element);
      break;
    case "tuple":
      for (const el of def.items)
        check2(el);
      check2(def.rest);
      break;
    case "record":
    case "map":
      check2(def.keyType);
      check2(def.valueType);
      break;
    case "set":
      check2(def.valueType);
      break;
    case "union":
      for (const el of def.options)
        check2(el);
      break;
    case "intersection":
      check2(def.left);
      check2(def.right);
      break;
    case "optional":
    case "nullable":
    case "default":
    case "prefault":
    case "catch":
    case "readonly":
    case "nonoptional":
    case "promise":
    case "success":
      check2(def.innerType);
      break;
    case "pipe":
      check2(def.in);
      check2(def.out);
      break;
    case "function":
      check2(def.input);
      check2(def.output);
      break;
    // `$ZodLazy` caches its inner on the def, so a resolved edge is followed exactly
    case "lazy": {
      const inner = def._cachedInner ?? (resolve ? inst._zod.innerType : void 0);
      merge2(inner ? isRecursive(inner, stack, false) : ASSUMED);
      break;
    }
    // a leaf by choice: `parts` are regex fragments, not data positions
    case "template_literal":
    // leaves
    case "string":
    case "number":
    case "int":
    case "boolean":
    case "bigint":
    case "symbol":
    case "undefined":
    case "null":
    case "void":
    case "never":
    case "any":
    case "unknown":
    case "date":
    case "nan":
    case "enum":
    case "literal":
    case "file":
    case "transform":
    case "custom":
      break;
    default: {
      kind;
      for (const key in def) {
        const desc = Object.getOwnPropertyDescriptor(def, key);
        if (!desc || desc.get)
          continue;
        const value = desc.value;
        if (!value || typeof value !== "object")
          continue;
        if (value._zod)
          check2(value);
        else if (Array.isArray(value))
          for (const el of value)
            check2(el);
      }
    }
  }
  stack.delete(inst);
  return settle(inst, result);
}
function settle(inst, answer) {
  if (answer !== ASSUMED)
    recursive.set(inst, answer === PROVEN);
  return answer;
}
function bucketFor(state, inst) {
  let bucket = state.buckets.get(inst);
  if (!bucket) {
    bucket = /* @__PURE__ */ new WeakMap();
    state.buckets.set(inst, bucket);
  }
  return bucket;
}
var handoff;
var open = [];
var memo = {
  alloc(_inst, payload, empty2) {
    const bucket = handoff;
    if (!bucket)
      return empty2;
    handoff = void 0;
    const entry = { value: empty2, issues: null };
    bucket.set(payload.value, entry);
    open.push(entry);
    return empty2;
  },
  guard(inst) {
    var _a3;
    (_a3 = inst._zod).deferred ?? (_a3.deferred = []);
    inst._zod.deferred.push(() => {
      const base = inst._zod.parse;
      const wrapped = (payload, ctx) => {
        if (ctx.direction !== "backward" && isBackEdge(ctx, payload.value))
          throw new $ZodCyclicError();
        return base(payload, ctx);
      };
      inst._zod.parse = wrapped;
      if (inst._zod.run === base)
        inst._zod.run = wrapped;
    });
  },
  attach(inst) {
    var _a3;
    let isRecursiveInst;
    let rechecked = false;
    let lastCtx;
    let lastBucket;
    (_a3 = inst._zod).deferred ?? (_a3.deferred = []);
    inst._zod.deferred.push(() => {
      const base = inst._zod.parse;
      const wrapped = (payload, ctx) => {
        if (isRecursiveInst === void 0) {
          const walked = isRecursive(inst, /* @__PURE__ */ new Set(), false);
          if (walked === NONE2) {
            inst._zod.parse = base;
            if (inst._zod.run === wrapped)
              inst._zod.run = base;
            return base(payload, ctx);
          }
          if (walked === PROVEN || rechecked)
            isRecursiveInst = true;
          else
            rechecked = true;
        }
        const input = payload.value;
        if (!isRef(input))
          return base(payload, ctx);
        let state = ctx[STATE];
        if (!state) {
          state = { buckets: /* @__PURE__ */ new WeakMap(), backEdges: void 0 };
          ctx[STATE] = state;
        }
        let bucket;
        if (lastCtx === ctx) {
          bucket = lastBucket;
        } else {
          bucket = bucketFor(state, inst);
          lastCtx = ctx;
          lastBucket = bucket;
        }
        const hit = bucket.get(input);
        if (hit) {
          payload.value = hit.value;
          if (hit.issues) {
            if (hit.issues.length)
              payload.issues.push(...cloneIssues(hit.issues));
          } else {
            payload.memo = true;
            state.backEdges ?? (state.backEdges = /* @__PURE__ */ new WeakSet());
            state.backEdges.add(hit.value);
          }
          return payload;
        }
        handoff = bucket;
        const depth = open.length;
        const result = base(payload, ctx);
        handoff = void 0;
        const entry = open.length > depth ? open.pop() : void 0;
        if (result instanceof Promise) {
          return result.then((r) => {
            if (entry)
              entry.issues = r.issues.length ? cloneIssues(r.issues) : NO_ISSUES;
            return r;
          });
        }
        if (entry)
          entry.issues = result.issues.length ? cloneIssues(result.issues) : NO_ISSUES;
        return result;
      };
      inst._zod.parse = wrapped;
      if (inst._zod.run === base)
        inst._zod.run = wrapped;
    });
  }
};
function memoizer() {
  return memo;
}
function isBackEdge(ctx, value) {
  const backEdges = ctx[STATE]?.backEdges;
  return backEdges !== void 0 && isRef(value) && backEdges.has(value);
}

// node_modules/zod/v4/locales/en.js
var error = () => {
  const Sizable = {
    string: { unit: "characters", verb: "to have" },
    file: { unit: "bytes", verb: "to have" },
    array: { unit: "items", verb: "to have" },
    set: { unit: "items", verb: "to have" },
    map: { unit: "entries", verb: "to have" }
  };
  function getSizing(origin) {
    return Sizable[origin] ?? null;
  }
  const FormatDictionary = {
    regex: "input",
    email: "email address",
    url: "URL",
    emoji: "emoji",
    uuid: "UUID",
    uuidv4: "UUIDv4",
    uuidv6: "UUIDv6",
    nanoid: "nanoid",
    guid: "GUID",
    cuid: "cuid",
    cuid2: "cuid2",
    ulid: "ULID",
    xid: "XID",
    ksuid: "KSUID",
    datetime: "ISO datetime",
    date: "ISO date",
    time: "ISO time",
    duration: "ISO duration",
    ipv4: "IPv4 address",
    ipv6: "IPv6 address",
    mac: "MAC address",
    cidrv4: "IPv4 range",
    cidrv6: "IPv6 range",
    base64: "base64-encoded string",
    base64url: "base64url-encoded string",
    json_string: "JSON string",
    e164: "E.164 number",
    currency_code: "currency code",
    credit_card: "credit card number",
    iban: "IBAN",
    jwt: "JWT",
    template_literal: "input"
  };
  const TypeDictionary = {
    // Compatibility: "nan" -> "NaN" for display
    nan: "NaN"
    // All other type names omitted - they fall back to raw values via ?? operator
  };
  function getTypeName(type, input) {
    if (type === "number" && typeof input === "number" && !Number.isFinite(input)) {
      return String(input);
    }
    return TypeDictionary[type] ?? type;
  }
  return (issue2) => {
    switch (issue2.code) {
      case "invalid_type": {
        const expected = getTypeName(issue2.expected);
        const receivedType = parsedType(issue2.input);
        const received = getTypeName(receivedType, issue2.input);
        return `Invalid input: expected ${expected}, received ${received}`;
      }
      case "invalid_value":
        if (issue2.values.length === 1)
          return `Invalid input: expected ${stringifyPrimitive(issue2.values[0])}`;
        return `Invalid option: expected one of ${joinValues(issue2.values, "|")}`;
      case "too_big": {
        const adj = issue2.exact ? "exactly " : issue2.inclusive ? "<=" : "<";
        const sizing = getSizing(issue2.origin);
        if (sizing)
          return `Too big: expected ${issue2.origin ?? "value"} to have ${adj}${issue2.maximum.toString()} ${sizing.unit ?? "elements"}`;
        return `Too big: expected ${issue2.origin ?? "value"} to be ${adj}${issue2.maximum.toString()}`;
      }
      case "too_small": {
        const adj = issue2.exact ? "exactly " : issue2.inclusive ? ">=" : ">";
        const sizing = getSizing(issue2.origin);
        if (sizing) {
          return `Too small: expected ${issue2.origin} to have ${adj}${issue2.minimum.toString()} ${sizing.unit}`;
        }
        return `Too small: expected ${issue2.origin} to be ${adj}${issue2.minimum.toString()}`;
      }
      case "invalid_format": {
        const _issue = issue2;
        if (_issue.format === "starts_with") {
          return `Invalid string: must start with "${_issue.prefix}"`;
        }
        if (_issue.format === "ends_with")
          return `Invalid string: must end with "${_issue.suffix}"`;
        if (_issue.format === "includes")
          return `Invalid string: must include "${_issue.includes}"`;
        if (_issue.format === "regex")
          return `Invalid string: must match pattern ${_issue.pattern}`;
        return `Invalid ${FormatDictionary[_issue.format] ?? issue2.format}`;
      }
      case "not_multiple_of":
        return `Invalid number: must be a multiple of ${issue2.divisor}`;
      case "unrecognized_keys":
        return `Unrecognized key${issue2.keys.length > 1 ? "s" : ""}: ${joinValues(issue2.keys, ", ")}`;
      case "invalid_key":
        return `Invalid key in ${issue2.origin}`;
      case "invalid_union":
        if (issue2.options && Array.isArray(issue2.options) && issue2.options.length > 0) {
          const opts = issue2.options.map((o) => `'${o}'`).join(" | ");
          return `Invalid discriminator value. Expected ${opts}`;
        }
        if (issue2.inclusive === false) {
          return "Invalid input: more than one option matched";
        }
        return "Invalid input";
      case "invalid_element":
        return `Invalid value in ${issue2.origin}`;
      default:
        return `Invalid input`;
    }
  };
};
function en_default() {
  return {
    localeError: error()
  };
}

// node_modules/zod/v4/core/registries.js
var _a2;
var $ZodRegistry = class {
  constructor() {
    this._map = /* @__PURE__ */ new WeakMap();
    this._idmap = /* @__PURE__ */ new Map();
  }
  add(schema, ..._meta) {
    const meta2 = _meta[0];
    this._map.set(schema, meta2);
    if (meta2 && typeof meta2 === "object" && "id" in meta2) {
      this._idmap.set(meta2.id, schema);
    }
    return this;
  }
  clear() {
    this._map = /* @__PURE__ */ new WeakMap();
    this._idmap = /* @__PURE__ */ new Map();
    return this;
  }
  remove(schema) {
    const meta2 = this._map.get(schema);
    if (meta2 && typeof meta2 === "object" && "id" in meta2) {
      this._idmap.delete(meta2.id);
    }
    this._map.delete(schema);
    return this;
  }
  get(schema) {
    const p = schema._zod.parent;
    if (p) {
      const pm = { ...this.get(p) ?? {} };
      delete pm.id;
      const f = { ...pm, ...this._map.get(schema) };
      return Object.keys(f).length ? f : void 0;
    }
    return this._map.get(schema);
  }
  has(schema) {
    return this._map.has(schema);
  }
};
function registry() {
  return new $ZodRegistry();
}
(_a2 = globalThis).__zod_globalRegistry ?? (_a2.__zod_globalRegistry = registry());
var globalRegistry = globalThis.__zod_globalRegistry;

// node_modules/zod/v4/core/api.js
function snapshotChecks(def) {
  if (def.checks)
    def.checks = [...def.checks];
  return def;
}
// @__NO_SIDE_EFFECTS__
function _string(Class2, params) {
  return new Class2(snapshotChecks({ type: "string", ...normalizeParams(params) }));
}
// @__NO_SIDE_EFFECTS__
function _email(Class2, params) {
  return new Class2({
    type: "string",
    format: "email",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _guid(Class2, params) {
  return new Class2({
    type: "string",
    format: "guid",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _uuid(Class2, params) {
  return new Class2({
    type: "string",
    format: "uuid",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _uuidv4(Class2, params) {
  return new Class2({
    type: "string",
    format: "uuid",
    check: "string_format",
    abort: false,
    version: "v4",
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _uuidv6(Class2, params) {
  return new Class2({
    type: "string",
    format: "uuid",
    check: "string_format",
    abort: false,
    version: "v6",
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _uuidv7(Class2, params) {
  return new Class2({
    type: "string",
    format: "uuid",
    check: "string_format",
    abort: false,
    version: "v7",
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _url(Class2, params) {
  return new Class2({
    type: "string",
    format: "url",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _emoji2(Class2, params) {
  return new Class2({
    type: "string",
    format: "emoji",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _nanoid(Class2, params) {
  return new Class2({
    type: "string",
    format: "nanoid",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _cuid(Class2, params) {
  return new Class2({
    type: "string",
    format: "cuid",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _cuid2(Class2, params) {
  return new Class2({
    type: "string",
    format: "cuid2",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _ulid(Class2, params) {
  return new Class2({
    type: "string",
    format: "ulid",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _xid(Class2, params) {
  return new Class2({
    type: "string",
    format: "xid",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _ksuid(Class2, params) {
  return new Class2({
    type: "string",
    format: "ksuid",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _ipv4(Class2, params) {
  return new Class2({
    type: "string",
    format: "ipv4",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _ipv6(Class2, params) {
  return new Class2({
    type: "string",
    format: "ipv6",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _cidrv4(Class2, params) {
  return new Class2({
    type: "string",
    format: "cidrv4",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _cidrv6(Class2, params) {
  return new Class2({
    type: "string",
    format: "cidrv6",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _base64(Class2, params) {
  return new Class2({
    type: "string",
    format: "base64",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _base64url(Class2, params) {
  return new Class2({
    type: "string",
    format: "base64url",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _e164(Class2, params) {
  return new Class2({
    type: "string",
    format: "e164",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _jwt(Class2, params) {
  return new Class2({
    type: "string",
    format: "jwt",
    check: "string_format",
    abort: false,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _isoDateTime(Class2, params) {
  return new Class2({
    type: "string",
    format: "datetime",
    check: "string_format",
    offset: false,
    local: false,
    precision: null,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _isoDate(Class2, params) {
  return new Class2({
    type: "string",
    format: "date",
    check: "string_format",
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _isoTime(Class2, params) {
  return new Class2({
    type: "string",
    format: "time",
    check: "string_format",
    precision: null,
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _isoDuration(Class2, params) {
  return new Class2({
    type: "string",
    format: "duration",
    check: "string_format",
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _number(Class2, params) {
  return new Class2(snapshotChecks({ type: "number", checks: [], ...normalizeParams(params) }));
}
// @__NO_SIDE_EFFECTS__
function _int(Class2, params) {
  return new Class2({
    type: "number",
    check: "number_format",
    abort: false,
    format: "safeint",
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _null2(Class2, params) {
  return new Class2({
    type: "null",
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _unknown(Class2) {
  return new Class2({
    type: "unknown"
  });
}
// @__NO_SIDE_EFFECTS__
function _never(Class2, params) {
  return new Class2({
    type: "never",
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _lt(value, params) {
  return new $ZodCheckLessThan({
    check: "less_than",
    ...normalizeParams(params),
    value,
    inclusive: false
  });
}
// @__NO_SIDE_EFFECTS__
function _lte(value, params) {
  return new $ZodCheckLessThan({
    check: "less_than",
    ...normalizeParams(params),
    value,
    inclusive: true
  });
}
// @__NO_SIDE_EFFECTS__
function _gt(value, params) {
  return new $ZodCheckGreaterThan({
    check: "greater_than",
    ...normalizeParams(params),
    value,
    inclusive: false
  });
}
// @__NO_SIDE_EFFECTS__
function _gte(value, params) {
  return new $ZodCheckGreaterThan({
    check: "greater_than",
    ...normalizeParams(params),
    value,
    inclusive: true
  });
}
// @__NO_SIDE_EFFECTS__
function _multipleOf(value, params) {
  return new $ZodCheckMultipleOf({
    check: "multiple_of",
    ...normalizeParams(params),
    value
  });
}
// @__NO_SIDE_EFFECTS__
function _maxLength(maximum, params) {
  const ch = new $ZodCheckMaxLength({
    check: "max_length",
    ...normalizeParams(params),
    maximum
  });
  return ch;
}
// @__NO_SIDE_EFFECTS__
function _minLength(minimum, params) {
  return new $ZodCheckMinLength({
    check: "min_length",
    ...normalizeParams(params),
    minimum
  });
}
// @__NO_SIDE_EFFECTS__
function _length(length, params) {
  return new $ZodCheckLengthEquals({
    check: "length_equals",
    ...normalizeParams(params),
    length
  });
}
// @__NO_SIDE_EFFECTS__
function _regex(pattern, params) {
  return new $ZodCheckRegex({
    check: "string_format",
    format: "regex",
    ...normalizeParams(params),
    pattern
  });
}
// @__NO_SIDE_EFFECTS__
function _lowercase(params) {
  return new $ZodCheckLowerCase({
    check: "string_format",
    format: "lowercase",
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _uppercase(params) {
  return new $ZodCheckUpperCase({
    check: "string_format",
    format: "uppercase",
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _includes(includes, params) {
  return new $ZodCheckIncludes({
    check: "string_format",
    format: "includes",
    ...normalizeParams(params),
    includes
  });
}
// @__NO_SIDE_EFFECTS__
function _startsWith(prefix, params) {
  return new $ZodCheckStartsWith({
    check: "string_format",
    format: "starts_with",
    ...normalizeParams(params),
    prefix
  });
}
// @__NO_SIDE_EFFECTS__
function _endsWith(suffix, params) {
  return new $ZodCheckEndsWith({
    check: "string_format",
    format: "ends_with",
    ...normalizeParams(params),
    suffix
  });
}
// @__NO_SIDE_EFFECTS__
function _overwrite(tx) {
  return new $ZodCheckOverwrite({
    check: "overwrite",
    tx
  });
}
// @__NO_SIDE_EFFECTS__
function _normalize(form2) {
  return /* @__PURE__ */ _overwrite((input) => input.normalize(form2));
}
// @__NO_SIDE_EFFECTS__
function _trim() {
  return /* @__PURE__ */ _overwrite((input) => input.trim());
}
// @__NO_SIDE_EFFECTS__
function _toLowerCase() {
  return /* @__PURE__ */ _overwrite((input) => input.toLowerCase());
}
// @__NO_SIDE_EFFECTS__
function _toUpperCase() {
  return /* @__PURE__ */ _overwrite((input) => input.toUpperCase());
}
// @__NO_SIDE_EFFECTS__
function _slugify() {
  return /* @__PURE__ */ _overwrite((input) => slugify(input));
}
// @__NO_SIDE_EFFECTS__
function _array(Class2, element, params) {
  return new Class2({
    type: "array",
    element,
    // get element() {
    //   return element;
    // },
    ...normalizeParams(params)
  });
}
// @__NO_SIDE_EFFECTS__
function _refine(Class2, fn, _params) {
  const schema = new Class2({
    type: "custom",
    check: "custom",
    fn,
    ...normalizeParams(_params)
  });
  return schema;
}
// @__NO_SIDE_EFFECTS__
function _superRefine(fn, params) {
  const ch = /* @__PURE__ */ _check((payload) => {
    payload.addIssue = (issue2) => {
      if (typeof issue2 === "string") {
        payload.issues.push(issue(issue2, payload.value, ch._zod.def));
      } else {
        const _issue = issue2;
        if (_issue.fatal)
          _issue.continue = false;
        _issue.code ?? (_issue.code = "custom");
        if (!("input" in _issue))
          _issue.input = payload.value;
        _issue.inst ?? (_issue.inst = ch);
        _issue.continue ?? (_issue.continue = !ch._zod.def.abort);
        payload.issues.push(issue(_issue));
      }
    };
    return fn(payload.value, payload);
  }, params);
  return ch;
}
// @__NO_SIDE_EFFECTS__
function _check(fn, params) {
  const ch = new $ZodCheck({
    check: "custom",
    ...normalizeParams(params)
  });
  ch._zod.check = fn;
  return ch;
}

// node_modules/zod/v4/core/to-json-schema.js
function assignProps(target, ...sources) {
  for (const source of sources) {
    for (const key of Reflect.ownKeys(source)) {
      if (Object.prototype.propertyIsEnumerable.call(source, key)) {
        assignProp(target, key, source[key]);
      }
    }
  }
  return target;
}
function initializeContext(params) {
  let target = params?.target ?? "draft-2020-12";
  if (target === "draft-4")
    target = "draft-04";
  if (target === "draft-7")
    target = "draft-07";
  return {
    processors: params.processors ?? {},
    metadataRegistry: params?.metadata ?? globalRegistry,
    target,
    unrepresentable: params?.unrepresentable ?? "throw",
    override: params?.override ?? (() => {
    }),
    io: params?.io ?? "output",
    counter: 0,
    seen: /* @__PURE__ */ new Map(),
    sharedDefsExtractedFor: void 0,
    sharedEmitDoneFor: void 0,
    cycles: params?.cycles ?? "ref",
    reused: params?.reused ?? "inline",
    intersections: [],
    deferred: [],
    external: params?.external ?? void 0
  };
}
function handleUnrepresentable(schema, ctx, json, params, message) {
  const result = typeof ctx.unrepresentable === "function" ? ctx.unrepresentable({ zodSchema: schema, path: params.path, message }) : ctx.unrepresentable;
  if (result === "any")
    return false;
  if (result === void 0 || result === "throw")
    throw new Error(message);
  Object.assign(json, result);
  return true;
}
function processSchema(schema, ctx, _params = { path: [], schemaPath: [] }) {
  var _a3;
  const def = schema._zod.def;
  const seen2 = ctx.seen.get(schema);
  if (seen2) {
    seen2.count++;
    const isCycle = _params.schemaPath.includes(schema);
    if (isCycle) {
      seen2.cycle = _params.path;
    }
    return seen2.schema;
  }
  const result = { schema: {}, count: 1, cycle: void 0, path: _params.path };
  ctx.seen.set(schema, result);
  ctx.sharedDefsExtractedFor = void 0;
  ctx.sharedEmitDoneFor = void 0;
  const overrideSchema = schema._zod.toJSONSchema?.();
  if (overrideSchema) {
    result.schema = overrideSchema;
  } else {
    const params = {
      ..._params,
      schemaPath: [..._params.schemaPath, schema],
      path: _params.path
    };
    if (schema._zod.processJSONSchema) {
      schema._zod.processJSONSchema(ctx, result.schema, params);
    } else {
      const _json = result.schema;
      const processor = ctx.processors[def.type];
      if (!processor) {
        throw new Error(`[toJSONSchema]: Non-representable type encountered: ${def.type}`);
      }
      processor(schema, ctx, _json, params);
    }
    const parent = schema._zod.parent;
    if (parent) {
      if (!result.ref)
        result.ref = parent;
      processSchema(parent, ctx, params);
      ctx.seen.get(parent).isParent = true;
    }
  }
  const meta2 = ctx.metadataRegistry.get(schema);
  if (meta2)
    assignProps(result.schema, meta2);
  if (ctx.io === "input" && isTransforming(schema)) {
    delete result.schema.examples;
    delete result.schema.default;
  }
  if (ctx.io === "input" && "_prefault" in result.schema)
    (_a3 = result.schema).default ?? (_a3.default = result.schema._prefault);
  delete result.schema._prefault;
  const _result = ctx.seen.get(schema);
  return _result.schema;
}
function encodeJSONPointerSegment(segment) {
  return segment.replace(/~/g, "~0").replace(/\//g, "~1");
}
function extractDefs(ctx, schema) {
  const root = ctx.seen.get(schema);
  if (!root)
    throw new Error("Unprocessed schema. This is a bug in Zod.");
  if (ctx.external && ctx.sharedDefsExtractedFor === ctx.external)
    return;
  const idToSchema = /* @__PURE__ */ new Map();
  for (const entry of ctx.seen.entries()) {
    const id = ctx.metadataRegistry.get(entry[0])?.id;
    if (id) {
      const existing = idToSchema.get(id);
      if (existing && existing !== entry[0]) {
        throw new Error(`Duplicate schema id "${id}" detected during JSON Schema conversion. Two different schemas cannot share the same id when converted together.`);
      }
      idToSchema.set(id, entry[0]);
    }
  }
  const makeURI = (entry) => {
    const defsSegment = ctx.target === "draft-2020-12" ? "$defs" : "definitions";
    if (ctx.external) {
      const externalId = ctx.external.registry.get(entry[0])?.id;
      const uriGenerator = ctx.external.uri ?? ((id2) => id2);
      if (externalId) {
        return { ref: uriGenerator(externalId) };
      }
      const id = entry[1].defId ?? entry[1].schema.id ?? `schema${ctx.counter++}`;
      entry[1].defId = id;
      return { defId: id, ref: `${uriGenerator("__shared")}#/${defsSegment}/${encodeJSONPointerSegment(id)}` };
    }
    const uriPrefix = `#`;
    const defUriPrefix = `${uriPrefix}/${defsSegment}/`;
    if (entry[1] === root && !entry[1].schema.id) {
      return { ref: uriPrefix };
    }
    const defId = entry[1].schema.id ?? `__schema${ctx.counter++}`;
    return { defId, ref: defUriPrefix + encodeJSONPointerSegment(defId) };
  };
  const extractToDef = (entry) => {
    if (entry[1].schema.$ref) {
      return;
    }
    const seen2 = entry[1];
    const { ref, defId } = makeURI(entry);
    seen2.def = { ...seen2.schema };
    if (defId)
      seen2.defId = defId;
    const schema2 = seen2.schema;
    for (const key in schema2) {
      delete schema2[key];
    }
    schema2.$ref = ref;
  };
  if (ctx.cycles === "throw") {
    for (const entry of ctx.seen.entries()) {
      const seen2 = entry[1];
      if (seen2.cycle) {
        throw new Error(`Cycle detected: #/${seen2.cycle?.join("/")}/<root>

Set the \`cycles\` parameter to \`"ref"\` to resolve cyclical schemas with defs.`);
      }
    }
  }
  for (const entry of ctx.seen.entries()) {
    const seen2 = entry[1];
    if (schema === entry[0]) {
      extractToDef(entry);
      continue;
    }
    if (ctx.external) {
      const ext = ctx.external.registry.get(entry[0])?.id;
      if (schema !== entry[0] && ext) {
        extractToDef(entry);
        continue;
      }
    }
    const id = ctx.metadataRegistry.get(entry[0])?.id;
    if (id) {
      extractToDef(entry);
      continue;
    }
    if (seen2.cycle) {
      extractToDef(entry);
      continue;
    }
    if (seen2.count > 1) {
      if (ctx.reused === "ref") {
        extractToDef(entry);
      }
    }
  }
  if (ctx.external)
    ctx.sharedDefsExtractedFor = ctx.external;
}
function compactTypeUnion(schema) {
  const options = schema.anyOf;
  if (!Array.isArray(options) || options.length === 0 || schema.type !== void 0)
    return;
  const types = [];
  for (const option2 of options) {
    if (!option2 || typeof option2 !== "object")
      return;
    compactTypeUnion(option2);
    const keys = Object.keys(option2);
    if (keys.length !== 1 || keys[0] !== "type")
      return;
    const type = option2.type;
    for (const member of Array.isArray(type) ? type : [type]) {
      if (typeof member !== "string")
        return;
      if (!types.includes(member))
        types.push(member);
    }
  }
  delete schema.anyOf;
  schema.type = types.length === 1 ? types[0] : types;
}
var FOLDABLE_KEYS = /* @__PURE__ */ new Set(["type", "properties", "required", "additionalProperties"]);
var UNION_KEYS = ["oneOf", "anyOf"];
function undeclaredConstraint(member) {
  const extra = member.additionalProperties;
  if (extra === void 0 || extra === false || typeof extra !== "object" || extra === null)
    return null;
  return Object.keys(extra).length ? extra : null;
}
function foldObjects(members2) {
  const objects = [];
  for (const member of members2) {
    if (typeof member !== "object" || member.type !== "object")
      return null;
    for (const key in member) {
      if (!FOLDABLE_KEYS.has(key))
        return null;
    }
    objects.push(member);
  }
  const properties = {};
  const required2 = /* @__PURE__ */ new Set();
  for (const object of objects) {
    for (const key in object.properties) {
      if (Object.prototype.hasOwnProperty.call(properties, key))
        continue;
      const parts = [];
      for (const other of objects) {
        const part = other.properties?.[key] ?? undeclaredConstraint(other);
        if (part === null || part === void 0)
          continue;
        if (!parts.some((seen2) => JSON.stringify(seen2) === JSON.stringify(part)))
          parts.push(part);
      }
      const merged = parts.length === 1 ? parts[0] : foldObjects(parts) ?? { allOf: parts };
      assignProp(properties, key, merged);
    }
    for (const key of object.required ?? [])
      required2.add(key);
  }
  const folded = { type: "object", properties };
  if (required2.size)
    folded.required = [...required2];
  if (objects.every((object) => object.additionalProperties === false)) {
    folded.additionalProperties = false;
  } else {
    const constraints = [];
    for (const object of objects) {
      const constraint = undeclaredConstraint(object);
      if (constraint && !constraints.some((seen2) => JSON.stringify(seen2) === JSON.stringify(constraint)))
        constraints.push(constraint);
    }
    if (constraints.length === 1)
      folded.additionalProperties = constraints[0];
    else if (constraints.length > 1)
      folded.additionalProperties = { allOf: constraints };
  }
  return folded;
}
function foldIntersection(json) {
  const allOf = json.allOf;
  if (!Array.isArray(allOf) || allOf.length < 2)
    return;
  for (const key of FOLDABLE_KEYS)
    if (key in json)
      return;
  const unions = allOf.filter((m) => UNION_KEYS.some((k) => Array.isArray(m[k])));
  let folded = null;
  if (!unions.length) {
    folded = foldObjects(allOf);
  } else {
    const union2 = unions[0];
    const keyword = UNION_KEYS.find((k) => Array.isArray(union2[k]));
    if (Object.keys(union2).length !== 1)
      return;
    const rest = allOf.filter((m) => m !== union2);
    const branches = union2[keyword].map((branch) => foldObjects([...rest, branch]));
    if (branches.some((b) => !b))
      return;
    folded = { [keyword]: branches };
  }
  if (!folded)
    return;
  delete json.allOf;
  assignProps(json, folded);
}
function finalize(ctx, schema) {
  const root = ctx.seen.get(schema);
  if (!root)
    throw new Error("Unprocessed schema. This is a bug in Zod.");
  const flattenRef = (zodSchema) => {
    const seen2 = ctx.seen.get(zodSchema);
    if (seen2.ref === null)
      return;
    const schema2 = seen2.def ?? seen2.schema;
    const _cached = { ...schema2 };
    const ref = seen2.ref;
    seen2.ref = null;
    if (ref) {
      flattenRef(ref);
      const refSeen = ctx.seen.get(ref);
      const refSchema = refSeen.schema;
      if (refSchema.$ref && (ctx.target === "draft-07" || ctx.target === "draft-04" || ctx.target === "openapi-3.0")) {
        schema2.allOf = schema2.allOf ?? [];
        schema2.allOf.push(refSchema);
      } else {
        assignProps(schema2, refSchema);
      }
      assignProps(schema2, _cached);
      const isParentRef = zodSchema._zod.parent === ref;
      if (isParentRef) {
        for (const key in schema2) {
          if (key === "$ref" || key === "allOf")
            continue;
          if (!(key in _cached)) {
            delete schema2[key];
          }
        }
      }
      if (refSchema.$ref && refSeen.def) {
        for (const key in schema2) {
          if (key === "$ref" || key === "allOf")
            continue;
          if (key in refSeen.def && JSON.stringify(schema2[key]) === JSON.stringify(refSeen.def[key])) {
            delete schema2[key];
          }
        }
      }
    }
    const parent = zodSchema._zod.parent;
    if (parent && parent !== ref) {
      flattenRef(parent);
      const parentSeen = ctx.seen.get(parent);
      if (parentSeen?.schema.$ref) {
        schema2.$ref = parentSeen.schema.$ref;
        if (parentSeen.def) {
          for (const key in schema2) {
            if (key === "$ref" || key === "allOf")
              continue;
            if (key in parentSeen.def && JSON.stringify(schema2[key]) === JSON.stringify(parentSeen.def[key])) {
              delete schema2[key];
            }
          }
        }
      }
    }
    ctx.override({
      zodSchema,
      jsonSchema: schema2,
      path: seen2.path ?? []
    });
  };
  if (!ctx.external || ctx.sharedEmitDoneFor !== ctx.external) {
    for (const entry of [...ctx.seen.entries()].reverse()) {
      flattenRef(entry[0]);
    }
    if (ctx.target !== "openapi-3.0") {
      for (const entry of ctx.seen.entries()) {
        compactTypeUnion(entry[1].def ?? entry[1].schema);
      }
    }
    for (const rewrite of ctx.deferred)
      rewrite();
    if (ctx.intersections.length) {
      const carriers = /* @__PURE__ */ new Map();
      for (const seen2 of ctx.seen.values()) {
        for (const json of [seen2.schema, seen2.def]) {
          const allOf = json?.allOf;
          if (!Array.isArray(allOf))
            continue;
          const existing = carriers.get(allOf);
          if (existing)
            existing.push(json);
          else
            carriers.set(allOf, [json]);
        }
      }
      for (const allOf of ctx.intersections) {
        for (const json of carriers.get(allOf) ?? [])
          foldIntersection(json);
      }
    }
  }
  const result = {};
  if (ctx.target === "draft-2020-12") {
    result.$schema = "https://json-schema.org/draft/2020-12/schema";
  } else if (ctx.target === "draft-07") {
    result.$schema = "http://json-schema.org/draft-07/schema#";
  } else if (ctx.target === "draft-04") {
    result.$schema = "http://json-schema.org/draft-04/schema#";
  } else if (ctx.target === "openapi-3.0") {
  } else {
  }
  if (ctx.external?.uri) {
    const id = ctx.external.registry.get(schema)?.id;
    if (!id)
      throw new Error("Schema is missing an `id` property");
    result.$id = ctx.external.uri(id);
  }
  assignProps(result, root.defId ? root.schema : root.def ?? root.schema);
  const rootMetaId = ctx.metadataRegistry.get(schema)?.id;
  if (rootMetaId !== void 0 && result.id === rootMetaId)
    delete result.id;
  const defs = ctx.external?.defs ?? {};
  if (!ctx.external || ctx.sharedEmitDoneFor !== ctx.external) {
    for (const entry of ctx.seen.entries()) {
      const seen2 = entry[1];
      if (seen2.def && seen2.defId) {
        if (seen2.def.id === seen2.defId)
          delete seen2.def.id;
        assignProp(defs, seen2.defId, seen2.def);
      }
    }
  }
  if (ctx.external)
    ctx.sharedEmitDoneFor = ctx.external;
  if (ctx.external) {
  } else {
    if (Object.keys(defs).length > 0) {
      if (ctx.target === "draft-2020-12") {
        result.$defs = defs;
      } else {
        result.definitions = defs;
      }
    }
  }
  try {
    const finalized = JSON.parse(JSON.stringify(result));
    Object.defineProperty(finalized, "~standard", {
      value: {
        ...schema["~standard"],
        jsonSchema: {
          input: createStandardJSONSchemaMethod(schema, "input", ctx.processors),
          output: createStandardJSONSchemaMethod(schema, "output", ctx.processors)
        }
      },
      enumerable: false,
      writable: false
    });
    return finalized;
  } catch (_err) {
    throw new Error("Error converting schema to JSON.");
  }
}
function isTransforming(_schema, _ctx) {
  const ctx = _ctx ?? { seen: /* @__PURE__ */ new Set() };
  if (ctx.seen.has(_schema))
    return false;
  ctx.seen.add(_schema);
  const def = _schema._zod.def;
  if (def.type === "transform")
    return true;
  if (def.type === "array")
    return isTransforming(def.element, ctx);
  if (def.type === "set")
    return isTransforming(def.valueType, ctx);
  if (def.type === "lazy")
    return isTransforming(def.getter(), ctx);
  if (def.type === "promise" || def.type === "optional" || def.type === "nonoptional" || def.type === "nullable" || def.type === "readonly" || def.type === "default" || def.type === "prefault" || def.type === "catch") {
    return isTransforming(def.innerType, ctx);
  }
  if (def.type === "intersection") {
    return isTransforming(def.left, ctx) || isTransforming(def.right, ctx);
  }
  if (def.type === "record" || def.type === "map") {
    return isTransforming(def.keyType, ctx) || isTransforming(def.valueType, ctx);
  }
  if (def.type === "pipe") {
    if (_schema._zod.traits.has("$ZodCodec"))
      return true;
    return isTransforming(def.in, ctx) || isTransforming(def.out, ctx);
  }
  if (def.type === "object") {
    for (const key in def.shape) {
      if (isTransforming(def.shape[key], ctx))
        return true;
    }
    return false;
  }
  if (def.type === "union") {
    for (const option2 of def.options) {
      if (isTransforming(option2, ctx))
        return true;
    }
    return false;
  }
  if (def.type === "tuple") {
    for (const item of def.items) {
      if (isTransforming(item, ctx))
        return true;
    }
    if (def.rest && isTransforming(def.rest, ctx))
      return true;
    return false;
  }
  return false;
}
var createToJSONSchemaMethod = (schema, processors = {}) => (params) => {
  const ctx = initializeContext({ ...params, processors });
  processSchema(schema, ctx);
  extractDefs(ctx, schema);
  return finalize(ctx, schema);
};
var createStandardJSONSchemaMethod = (schema, io, processors = {}) => (params) => {
  const { libraryOptions, target } = params ?? {};
  const ctx = initializeContext({ ...libraryOptions ?? {}, target, io, processors });
  processSchema(schema, ctx);
  extractDefs(ctx, schema);
  return finalize(ctx, schema);
};

// node_modules/zod/v4/core/json-schema-processors.js
var narrowMin = (agg, key, value) => {
  if (agg[key] === void 0 || value > agg[key])
    agg[key] = value;
};
var narrowMax = (agg, key, value) => {
  if (agg[key] === void 0 || value < agg[key])
    agg[key] = value;
};
var narrowBoth = (agg, value) => {
  narrowMin(agg, "minimum", value);
  narrowMax(agg, "maximum", value);
};
var addDivisor = (agg, value) => {
  agg.multipleOf ?? (agg.multipleOf = []);
  if (!agg.multipleOf.includes(value))
    agg.multipleOf.push(value);
};
var addPattern = (agg, pattern) => {
  agg.patterns ?? (agg.patterns = /* @__PURE__ */ new Set());
  agg.patterns.add(pattern);
};
var intersectMime = (agg, mime) => {
  agg.mime = agg.mime ? agg.mime.filter((m) => mime.includes(m)) : [...mime];
};
var setFormat = (agg, format) => {
  agg.format = format;
  if (format.includes("int"))
    agg.isInt = true;
};
var minContributor = (agg, def) => narrowMin(agg, "minimum", def.minimum);
var maxContributor = (agg, def) => narrowMax(agg, "maximum", def.maximum);
var formatContributor = (ranges) => (agg, def) => {
  setFormat(agg, def.format);
  const [minimum, maximum] = ranges[def.format];
  narrowMin(agg, "minimum", minimum);
  narrowMax(agg, "maximum", maximum);
};
var contributors = {
  greater_than: (agg, def) => narrowMin(agg, def.inclusive ? "minimum" : "exclusiveMinimum", def.value),
  less_than: (agg, def) => narrowMax(agg, def.inclusive ? "maximum" : "exclusiveMaximum", def.value),
  multiple_of: (agg, def) => addDivisor(agg, def.value),
  number_format: formatContributor(NUMBER_FORMAT_RANGES),
  bigint_format: formatContributor(BIGINT_FORMAT_RANGES),
  min_length: minContributor,
  max_length: maxContributor,
  length_equals: (agg, def) => narrowBoth(agg, def.length),
  min_size: minContributor,
  max_size: maxContributor,
  size_equals: (agg, def) => narrowBoth(agg, def.size),
  string_format: (agg, def) => {
    setFormat(agg, def.format);
    if (def.pattern)
      addPattern(agg, def.pattern);
    if (def.format === "base64" || def.format === "base64url")
      agg.contentEncoding = def.format;
    if (def.local || def.precision === -1)
      agg.laxFormat = true;
  },
  mime_type: (agg, def) => intersectMime(agg, def.mime)
};
function aggregateChecks(schema) {
  const agg = {};
  const def = schema._zod.def;
  const list2 = schema._zod.traits.has("$ZodCheck") ? [schema, ...def.checks ?? []] : def.checks ?? [];
  for (const ch of list2)
    contributors[ch._zod.def.check]?.(agg, ch._zod.def);
  const bag = schema._zod.bag;
  if (bag.minimum !== void 0)
    narrowMin(agg, "minimum", bag.minimum);
  if (bag.exclusiveMinimum !== void 0)
    narrowMin(agg, "exclusiveMinimum", bag.exclusiveMinimum);
  if (bag.maximum !== void 0)
    narrowMax(agg, "maximum", bag.maximum);
  if (bag.exclusiveMaximum !== void 0)
    narrowMax(agg, "exclusiveMaximum", bag.exclusiveMaximum);
  if (bag.multipleOf !== void 0)
    addDivisor(agg, bag.multipleOf);
  if (bag.format !== void 0) {
    agg.format ?? (agg.format = bag.format);
    if (bag.format.includes("int"))
      agg.isInt = true;
  }
  if (bag.mime)
    intersectMime(agg, bag.mime);
  for (const pattern of bag.patterns ?? [])
    addPattern(agg, pattern);
  return agg;
}
var formatMap = {
  guid: "uuid",
  url: "uri",
  datetime: "date-time",
  json_string: "json-string",
  regex: ""
  // do not set
};
var exactPatterns = /* @__PURE__ */ new Map([
  [base64Charset, base64],
  [base64urlCharset, base64url]
]);
var exactPattern = (p) => exactPatterns.get(p) ?? p;
var stringProcessor = (schema, ctx, _json, _params) => {
  const json = _json;
  json.type = "string";
  const { minimum, maximum, format, patterns: patterns2, contentEncoding, laxFormat } = aggregateChecks(schema);
  if (typeof minimum === "number")
    json.minLength = minimum;
  if (typeof maximum === "number")
    json.maxLength = maximum;
  if (format) {
    json.format = formatMap[format] ?? format;
    if (json.format === "")
      delete json.format;
    if (format === "time" || laxFormat) {
      delete json.format;
    }
  }
  if (contentEncoding)
    json.contentEncoding = contentEncoding;
  if (patterns2 && patterns2.size > 0) {
    const patternList = [...patterns2].map(exactPattern);
    if (patternList.length === 1)
      json.pattern = patternList[0].source;
    else if (patternList.length > 1) {
      json.allOf = [
        ...patternList.map((regex) => ({
          ...ctx.target === "draft-07" || ctx.target === "draft-04" || ctx.target === "openapi-3.0" ? { type: "string" } : {},
          pattern: regex.source
        }))
      ];
    }
  }
};
var numberProcessor = (schema, ctx, _json, params) => {
  const json = _json;
  const { minimum, maximum, multipleOf, exclusiveMaximum, exclusiveMinimum, isInt } = aggregateChecks(schema);
  json.type = isInt ? "integer" : "number";
  const exMin = typeof exclusiveMinimum === "number" && exclusiveMinimum >= (minimum ?? Number.NEGATIVE_INFINITY);
  const exMax = typeof exclusiveMaximum === "number" && exclusiveMaximum <= (maximum ?? Number.POSITIVE_INFINITY);
  const legacy = ctx.target === "draft-04" || ctx.target === "openapi-3.0";
  if (exMin) {
    if (legacy) {
      json.minimum = exclusiveMinimum;
      json.exclusiveMinimum = true;
    } else {
      json.exclusiveMinimum = exclusiveMinimum;
    }
  } else if (typeof minimum === "number") {
    json.minimum = minimum;
  }
  if (exMax) {
    if (legacy) {
      json.maximum = exclusiveMaximum;
      json.exclusiveMaximum = true;
    } else {
      json.exclusiveMaximum = exclusiveMaximum;
    }
  } else if (typeof maximum === "number") {
    json.maximum = maximum;
  }
  if (multipleOf) {
    const divisors = /* @__PURE__ */ new Set();
    for (const divisor of multipleOf) {
      if (Number.isFinite(divisor) && divisor !== 0)
        divisors.add(Math.abs(divisor));
      else
        handleUnrepresentable(schema, ctx, json, params, `A multipleOf divisor of ${divisor} cannot be represented in JSON Schema`);
    }
    const [first, ...rest] = divisors;
    if (first !== void 0)
      json.multipleOf = first;
    if (rest.length)
      json.allOf = [...json.allOf ?? [], ...rest.map((m) => ({ multipleOf: m }))];
  }
};
var nullProcessor = (_schema, ctx, json, _params) => {
  if (ctx.target === "openapi-3.0") {
    json.type = "string";
    json.nullable = true;
    json.enum = [null];
  } else {
    json.type = "null";
  }
};
var neverProcessor = (_schema, _ctx, json, _params) => {
  json.not = {};
};
var unknownProcessor = (_schema, _ctx, _json, _params) => {
};
var enumProcessor = (schema, _ctx, json, _params) => {
  const def = schema._zod.def;
  const values = getEnumValues(def.entries);
  if (values.length === 0) {
    json.not = {};
    return;
  }
  if (values.every((v) => typeof v === "number"))
    json.type = "number";
  if (values.every((v) => typeof v === "string"))
    json.type = "string";
  json.enum = values;
};
var customProcessor = (schema, ctx, json, params) => {
  handleUnrepresentable(schema, ctx, json, params, "Custom types cannot be represented in JSON Schema");
};
var transformProcessor = (schema, ctx, json, params) => {
  handleUnrepresentable(schema, ctx, json, params, "Transforms cannot be represented in JSON Schema");
};
var arrayProcessor = (schema, ctx, _json, params) => {
  const json = _json;
  const def = schema._zod.def;
  const { minimum, maximum } = aggregateChecks(schema);
  if (typeof minimum === "number")
    json.minItems = minimum;
  if (typeof maximum === "number")
    json.maxItems = maximum;
  json.type = "array";
  json.items = processSchema(def.element, ctx, {
    ...params,
    path: [...params.path, "items"]
  });
};
function inputOptin(schema) {
  const def = schema._zod.def;
  if (def.type === "pipe" && def.in._zod.traits.has("$ZodTransform")) {
    return inputOptin(def.out);
  }
  if (def.type === "catch") {
    return inputOptin(def.innerType);
  }
  return schema._zod.optin;
}
var objectProcessor = (schema, ctx, _json, params) => {
  const json = _json;
  const def = schema._zod.def;
  const shape = def.shape;
  const symbolKeys = Object.getOwnPropertySymbols(shape);
  if (symbolKeys.length && handleUnrepresentable(schema, ctx, json, params, "Symbol keys cannot be represented in JSON Schema")) {
    return;
  }
  json.type = "object";
  json.properties = {};
  for (const key in shape) {
    assignProp(json.properties, key, processSchema(shape[key], ctx, {
      ...params,
      path: [...params.path, "properties", key]
    }));
  }
  const requiredKeys = [];
  for (const key of Object.keys(shape)) {
    const field3 = def.shape[key];
    if (ctx.io === "input" ? inputOptin(field3) === void 0 : field3._zod.optout === void 0) {
      requiredKeys.push(key);
    }
  }
  if (requiredKeys.length > 0) {
    json.required = requiredKeys;
  }
  if (def.catchall?._zod.def.type === "never") {
    json.additionalProperties = false;
  } else if (!def.catchall) {
    if (ctx.io === "output")
      json.additionalProperties = false;
  } else if (def.catchall) {
    json.additionalProperties = processSchema(def.catchall, ctx, {
      ...params,
      path: [...params.path, "additionalProperties"]
    });
  }
};
var unionProcessor = (schema, ctx, json, params) => {
  const def = schema._zod.def;
  const isExclusive = def.inclusive === false;
  const options = def.options.map((x, i) => processSchema(x, ctx, {
    ...params,
    path: [...params.path, isExclusive ? "oneOf" : "anyOf", i]
  }));
  if (isExclusive) {
    json.oneOf = options;
  } else {
    json.anyOf = options;
  }
};
var intersectionProcessor = (schema, ctx, json, params) => {
  const def = schema._zod.def;
  const a = processSchema(def.left, ctx, {
    ...params,
    path: [...params.path, "allOf", 0]
  });
  const b = processSchema(def.right, ctx, {
    ...params,
    path: [...params.path, "allOf", 1]
  });
  const isSimpleIntersection = (val) => "allOf" in val && Object.keys(val).length === 1;
  const allOf = [
    ...isSimpleIntersection(a) ? a.allOf : [a],
    ...isSimpleIntersection(b) ? b.allOf : [b]
  ];
  json.allOf = allOf;
  ctx.intersections.push(allOf);
};
var tupleProcessor = (schema, ctx, _json, params) => {
  const json = _json;
  const def = schema._zod.def;
  json.type = "array";
  const prefixPath = ctx.target === "draft-2020-12" ? "prefixItems" : "items";
  const restPath = ctx.target === "draft-2020-12" ? "items" : ctx.target === "openapi-3.0" ? "items" : "additionalItems";
  const prefixItems = def.items.map((x, i) => processSchema(x, ctx, {
    ...params,
    path: [...params.path, prefixPath, i]
  }));
  const rest = def.rest ? processSchema(def.rest, ctx, {
    ...params,
    path: [...params.path, restPath, ...ctx.target === "openapi-3.0" ? [def.items.length] : []]
  }) : null;
  let minItems = def.items.length;
  while (minItems > 0) {
    const item = def.items[minItems - 1];
    const optional2 = ctx.io === "input" ? inputOptin(item) !== void 0 : item._zod.optout === "optional";
    if (!optional2)
      break;
    minItems--;
  }
  const maxItems = def.items.length;
  const isClosed = !def.rest;
  if (ctx.target === "draft-2020-12") {
    json.prefixItems = prefixItems;
    if (isClosed) {
      json.items = false;
    } else if (rest) {
      json.items = rest;
    }
    if (minItems > 0)
      json.minItems = minItems;
    if (isClosed)
      json.maxItems = maxItems;
  } else if (ctx.target === "openapi-3.0") {
    json.items = {
      anyOf: prefixItems
    };
    if (rest) {
      json.items.anyOf.push(rest);
    }
    if (minItems > 0)
      json.minItems = minItems;
    if (isClosed)
      json.maxItems = maxItems;
  } else {
    json.items = prefixItems;
    if (isClosed) {
      json.additionalItems = false;
    } else if (rest) {
      json.additionalItems = rest;
    }
    if (minItems > 0)
      json.minItems = minItems;
    if (isClosed)
      json.maxItems = maxItems;
  }
  const { minimum, maximum } = aggregateChecks(schema);
  if (typeof minimum === "number")
    json.minItems = minimum;
  if (typeof maximum === "number")
    json.maxItems = maximum;
};
var nullableProcessor = (schema, ctx, json, params) => {
  const def = schema._zod.def;
  const inner = processSchema(def.innerType, ctx, params);
  const seen2 = ctx.seen.get(schema);
  if (ctx.target === "openapi-3.0") {
    seen2.ref = def.innerType;
    json.nullable = true;
  } else {
    json.anyOf = [inner, { type: "null" }];
  }
};
var nonoptionalProcessor = (schema, ctx, _json, params) => {
  const def = schema._zod.def;
  processSchema(def.innerType, ctx, params);
  const seen2 = ctx.seen.get(schema);
  seen2.ref = def.innerType;
};
var UNREPRESENTABLE_DEFAULT = /* @__PURE__ */ Symbol();
function serializeDefaultValue(value, schema, ctx, json, params) {
  let unrepresentable = false;
  const serialized = JSON.stringify(value, (_, val) => {
    if (typeof val !== "bigint")
      return val;
    unrepresentable = true;
    return null;
  });
  if (!unrepresentable)
    return JSON.parse(serialized);
  handleUnrepresentable(schema, ctx, json, params, "BigInt defaults cannot be represented in JSON Schema");
  return UNREPRESENTABLE_DEFAULT;
}
var defaultProcessor = (schema, ctx, json, params) => {
  const def = schema._zod.def;
  processSchema(def.innerType, ctx, params);
  const seen2 = ctx.seen.get(schema);
  seen2.ref = def.innerType;
  const value = serializeDefaultValue(def.defaultValue, schema, ctx, json, params);
  if (value !== UNREPRESENTABLE_DEFAULT)
    json.default = value;
};
var prefaultProcessor = (schema, ctx, json, params) => {
  const def = schema._zod.def;
  processSchema(def.innerType, ctx, params);
  const seen2 = ctx.seen.get(schema);
  seen2.ref = def.innerType;
  if (ctx.io !== "input")
    return;
  const value = serializeDefaultValue(def.defaultValue, schema, ctx, json, params);
  if (value !== UNREPRESENTABLE_DEFAULT)
    json._prefault = value;
};
var catchProcessor = (schema, ctx, json, params) => {
  const def = schema._zod.def;
  processSchema(def.innerType, ctx, params);
  const seen2 = ctx.seen.get(schema);
  seen2.ref = def.innerType;
  let catchValue;
  try {
    catchValue = def.catchValue(void 0);
  } catch {
    handleUnrepresentable(schema, ctx, json, params, "Dynamic catch values are not supported in JSON Schema");
    return;
  }
  json.default = catchValue;
};
var pipeProcessor = (schema, ctx, _json, params) => {
  const def = schema._zod.def;
  const inIsTransform = def.in._zod.traits.has("$ZodTransform");
  const innerType = ctx.io === "input" ? inIsTransform ? def.out : def.in : def.out;
  processSchema(innerType, ctx, params);
  const seen2 = ctx.seen.get(schema);
  seen2.ref = innerType;
};
var readonlyProcessor = (schema, ctx, json, params) => {
  const def = schema._zod.def;
  processSchema(def.innerType, ctx, params);
  const seen2 = ctx.seen.get(schema);
  seen2.ref = def.innerType;
  json.readOnly = true;
};
var optionalProcessor = (schema, ctx, _json, params) => {
  const def = schema._zod.def;
  processSchema(def.innerType, ctx, params);
  const seen2 = ctx.seen.get(schema);
  seen2.ref = def.innerType;
};

// node_modules/zod/v4/classic/errors.js
var _installedErrorProtos = /* @__PURE__ */ new WeakSet([Object.prototype, Error.prototype]);
function _lazyMethod(proto, key, make) {
  Object.defineProperty(proto, key, {
    configurable: true,
    enumerable: false,
    get() {
      const value = make(this);
      Object.defineProperty(this, key, { value, configurable: true, writable: true });
      return value;
    },
    set(value) {
      Object.defineProperty(this, key, { value, configurable: true, writable: true });
    }
  });
}
var initializer2 = (inst, issues) => {
  $ZodError.init(inst, issues);
  inst.name = "ZodError";
  const proto = Object.getPrototypeOf(inst);
  if (_installedErrorProtos.has(proto))
    return;
  _installedErrorProtos.add(proto);
  _lazyMethod(proto, "format", (self) => (mapper) => formatError(self, mapper));
  _lazyMethod(proto, "flatten", (self) => (mapper) => flattenError(self, mapper));
  _lazyMethod(proto, "addIssue", (self) => (issue2) => {
    self.issues.push(issue2);
    self.message = JSON.stringify(self.issues, jsonStringifyReplacer, 2);
  });
  _lazyMethod(proto, "addIssues", (self) => (issues2) => {
    self.issues.push(...issues2);
    self.message = JSON.stringify(self.issues, jsonStringifyReplacer, 2);
  });
  Object.defineProperty(proto, "isEmpty", {
    configurable: true,
    enumerable: false,
    get() {
      return this.issues.length === 0;
    }
  });
};
var ZodRealError = /* @__PURE__ */ $constructor("ZodError", initializer2, void 0, {
  Parent: Error
});

// node_modules/zod/v4/classic/parse.js
var parse2 = /* @__PURE__ */ _parse(ZodRealError);
var parseAsync = /* @__PURE__ */ _parseAsync(ZodRealError);
var safeParse = /* @__PURE__ */ _safeParse(ZodRealError);
var safeParseAsync = /* @__PURE__ */ _safeParseAsync(ZodRealError);
var encode = /* @__PURE__ */ _encode(ZodRealError);
var decode = /* @__PURE__ */ _decode(ZodRealError);
var encodeAsync = /* @__PURE__ */ _encodeAsync(ZodRealError);
var decodeAsync = /* @__PURE__ */ _decodeAsync(ZodRealError);
var safeEncode = /* @__PURE__ */ _safeEncode(ZodRealError);
var safeDecode = /* @__PURE__ */ _safeDecode(ZodRealError);
var safeEncodeAsync = /* @__PURE__ */ _safeEncodeAsync(ZodRealError);
var safeDecodeAsync = /* @__PURE__ */ _safeDecodeAsync(ZodRealError);

// node_modules/zod/v4/classic/schemas.js
function _ensureDefaultLocale() {
  if (!globalConfig.localeError)
    config(en_default());
}
function _ensureDefaultMemoizer() {
  if (!globalConfig.memoizer)
    config({ memoizer: memoizer() });
}
var ZodType = /* @__PURE__ */ $constructor("ZodType", (inst, def) => {
  _ensureDefaultLocale();
  $ZodType.init(inst, def);
  inst.def = def;
  inst.type = def.type;
  return inst;
}, {
  check(...chks) {
    const def = this.def;
    return this.clone(util_exports.mergeDefs(def, {
      checks: [
        ...def.checks ?? [],
        ...chks.map((ch) => typeof ch === "function" ? { _zod: { check: ch, def: { check: "custom" }, onattach: [] } } : ch)
      ]
    }), { parent: true });
  },
  with(...chks) {
    return this.check(...chks);
  },
  clone(def, params) {
    return clone(this, def, params);
  },
  brand() {
    return this;
  },
  register(reg, meta2) {
    reg.add(this, meta2);
    return this;
  },
  refine(check2, params) {
    return this.check(refine(check2, params));
  },
  superRefine(refinement, params) {
    return this.check(superRefine(refinement, params));
  },
  overwrite(fn) {
    return this.check(_overwrite(fn));
  },
  optional() {
    return optional(this);
  },
  exactOptional() {
    return exactOptional(this);
  },
  nullable() {
    return nullable(this);
  },
  nullish() {
    return optional(nullable(this));
  },
  nonoptional(params) {
    return nonoptional(this, params);
  },
  array() {
    return array2(this);
  },
  or(arg) {
    return union([this, arg]);
  },
  and(arg) {
    return intersection(this, arg);
  },
  transform(tx) {
    return pipe(this, transform(tx));
  },
  default(d) {
    return _default(this, d);
  },
  prefault(d) {
    return prefault(this, d);
  },
  catch(params) {
    return _catch(this, params);
  },
  pipe(target) {
    return pipe(this, target);
  },
  readonly() {
    return readonly(this);
  },
  describe(description) {
    const cl = this.clone();
    globalRegistry.add(cl, { description });
    return cl;
  },
  meta(...args) {
    if (args.length === 0)
      return globalRegistry.get(this);
    const cl = this.clone();
    globalRegistry.add(cl, args[0]);
    return cl;
  },
  isOptional() {
    return this.safeParse(void 0).success;
  },
  isNullable() {
    return this.safeParse(null).success;
  },
  apply(fn, ...args) {
    return args.length === 0 ? fn(this) : fn(this, ...args);
  },
  // Overrides core's `~standard` to add `jsonSchema`. Must stay a prototype entry: redefining it per instance demotes instances to dictionary mode.
  get "~standard"() {
    return util_exports.hide(this, "~standard", {
      ...standardProps(this),
      jsonSchema: {
        input: createStandardJSONSchemaMethod(this, "input"),
        output: createStandardJSONSchemaMethod(this, "output")
      }
    });
  },
  set "~standard"(value) {
    util_exports.own(this, "~standard", value);
  },
  parse: function _parse2(data, params) {
    return parse2(this, data, params, { callee: _parse2 });
  },
  parseAsync: async function _parseAsync2(data, params) {
    return await parseAsync(this, data, params, { callee: _parseAsync2 });
  },
  safeParse(data, params) {
    return safeParse(this, data, params);
  },
  async safeParseAsync(data, params) {
    return safeParseAsync(this, data, params);
  },
  // `spa` is an alias: same function object as `safeParseAsync`, as before.
  get spa() {
    return this?.safeParseAsync;
  },
  set spa(value) {
    util_exports.own(this, "spa", value);
  },
  validate(data, params) {
    return validate(this, data, params);
  },
  validateAsync(data, params) {
    return validateAsync(this, data, params);
  },
  encode: function _encode2(data, params) {
    return encode(this, data, params, { callee: _encode2 });
  },
  decode: function _decode2(data, params) {
    return decode(this, data, params, { callee: _decode2 });
  },
  encodeAsync: async function _encodeAsync2(data, params) {
    return await encodeAsync(this, data, params, { callee: _encodeAsync2 });
  },
  decodeAsync: async function _decodeAsync2(data, params) {
    return await decodeAsync(this, data, params, { callee: _decodeAsync2 });
  },
  safeEncode(data, params) {
    return safeEncode(this, data, params);
  },
  safeDecode(data, params) {
    return safeDecode(this, data, params);
  },
  async safeEncodeAsync(data, params) {
    return safeEncodeAsync(this, data, params);
  },
  async safeDecodeAsync(data, params) {
    return safeDecodeAsync(this, data, params);
  },
  toJSONSchema(params) {
    return createToJSONSchemaMethod(this, {})(params);
  },
  // Reads through to the registry on every access, so it must not cache.
  get description() {
    return globalRegistry.get(this)?.description;
  },
  // No setter: `schema._def = x` throws, as it did when `_def` was a non-writable own property.
  get _def() {
    return this._zod.def;
  }
});
var _ZodString = /* @__PURE__ */ $constructor(
  "_ZodString",
  (inst, def) => {
    $ZodString.init(inst, def);
    ZodType.init(inst, def);
    inst._zod.processJSONSchema = (ctx, json, params) => stringProcessor(inst, ctx, json, params);
  },
  /* @__PURE__ */ util_exports.derived({
    format: (inst) => aggregateChecks(inst).format ?? null,
    minLength: (inst) => aggregateChecks(inst).minimum ?? null,
    maxLength: (inst) => aggregateChecks(inst).maximum ?? null
  }, {
    regex(...args) {
      return this.check(_regex(...args));
    },
    includes(...args) {
      return this.check(_includes(...args));
    },
    startsWith(...args) {
      return this.check(_startsWith(...args));
    },
    endsWith(...args) {
      return this.check(_endsWith(...args));
    },
    min(...args) {
      return this.check(_minLength(...args));
    },
    max(...args) {
      return this.check(_maxLength(...args));
    },
    length(...args) {
      return this.check(_length(...args));
    },
    nonempty(...args) {
      return this.check(_minLength(1, ...args));
    },
    lowercase(params) {
      return this.check(_lowercase(params));
    },
    uppercase(params) {
      return this.check(_uppercase(params));
    },
    trim() {
      return this.check(_trim());
    },
    normalize(...args) {
      return this.check(_normalize(...args));
    },
    toLowerCase() {
      return this.check(_toLowerCase());
    },
    toUpperCase() {
      return this.check(_toUpperCase());
    },
    slugify() {
      return this.check(_slugify());
    }
  })
);
var ZodString = /* @__PURE__ */ $constructor("ZodString", (inst, def) => {
  $ZodString.init(inst, def);
  _ZodString.init(inst, def);
}, {
  email(params) {
    return this.check(_email(ZodEmail, params));
  },
  url(params) {
    return this.check(_url(ZodURL, params));
  },
  jwt(params) {
    return this.check(_jwt(ZodJWT, params));
  },
  emoji(params) {
    return this.check(_emoji2(ZodEmoji, params));
  },
  guid(params) {
    return this.check(_guid(ZodGUID, params));
  },
  uuid(params) {
    return this.check(_uuid(ZodUUID, params));
  },
  uuidv4(params) {
    return this.check(_uuidv4(ZodUUID, params));
  },
  uuidv6(params) {
    return this.check(_uuidv6(ZodUUID, params));
  },
  uuidv7(params) {
    return this.check(_uuidv7(ZodUUID, params));
  },
  nanoid(params) {
    return this.check(_nanoid(ZodNanoID, params));
  },
  cuid(params) {
    return this.check(_cuid(ZodCUID, params));
  },
  cuid2(params) {
    return this.check(_cuid2(ZodCUID2, params));
  },
  ulid(params) {
    return this.check(_ulid(ZodULID, params));
  },
  base64(params) {
    return this.check(_base64(ZodBase64, params));
  },
  base64url(params) {
    return this.check(_base64url(ZodBase64URL, params));
  },
  xid(params) {
    return this.check(_xid(ZodXID, params));
  },
  ksuid(params) {
    return this.check(_ksuid(ZodKSUID, params));
  },
  ipv4(params) {
    return this.check(_ipv4(ZodIPv4, params));
  },
  ipv6(params) {
    return this.check(_ipv6(ZodIPv6, params));
  },
  cidrv4(params) {
    return this.check(_cidrv4(ZodCIDRv4, params));
  },
  cidrv6(params) {
    return this.check(_cidrv6(ZodCIDRv6, params));
  },
  e164(params) {
    return this.check(_e164(ZodE164, params));
  },
  datetime(params) {
    return this.check(_isoDateTime(ZodISODateTime, params));
  },
  date(params) {
    return this.check(_isoDate(ZodISODate, params));
  },
  time(params) {
    return this.check(_isoTime(ZodISOTime, params));
  },
  duration(params) {
    return this.check(_isoDuration(ZodISODuration, params));
  }
});
function string3(params) {
  return _string(ZodString, params);
}
var ZodStringFormat = /* @__PURE__ */ $constructor("ZodStringFormat", (inst, def) => {
  $ZodStringFormat.init(inst, def);
  _ZodString.init(inst, def);
});
var ZodISODateTime = /* @__PURE__ */ $constructor("ZodISODateTime", (inst, def) => {
  $ZodISODateTime.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodISODate = /* @__PURE__ */ $constructor("ZodISODate", (inst, def) => {
  $ZodISODate.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodISOTime = /* @__PURE__ */ $constructor("ZodISOTime", (inst, def) => {
  $ZodISOTime.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodISODuration = /* @__PURE__ */ $constructor("ZodISODuration", (inst, def) => {
  $ZodISODuration.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodEmail = /* @__PURE__ */ $constructor("ZodEmail", (inst, def) => {
  $ZodEmail.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodGUID = /* @__PURE__ */ $constructor("ZodGUID", (inst, def) => {
  $ZodGUID.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodUUID = /* @__PURE__ */ $constructor("ZodUUID", (inst, def) => {
  $ZodUUID.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodURL = /* @__PURE__ */ $constructor("ZodURL", (inst, def) => {
  $ZodURL.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodEmoji = /* @__PURE__ */ $constructor("ZodEmoji", (inst, def) => {
  $ZodEmoji.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodNanoID = /* @__PURE__ */ $constructor("ZodNanoID", (inst, def) => {
  $ZodNanoID.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodCUID = /* @__PURE__ */ $constructor("ZodCUID", (inst, def) => {
  $ZodCUID.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodCUID2 = /* @__PURE__ */ $constructor("ZodCUID2", (inst, def) => {
  $ZodCUID2.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodULID = /* @__PURE__ */ $constructor("ZodULID", (inst, def) => {
  $ZodULID.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodXID = /* @__PURE__ */ $constructor("ZodXID", (inst, def) => {
  $ZodXID.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodKSUID = /* @__PURE__ */ $constructor("ZodKSUID", (inst, def) => {
  $ZodKSUID.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodIPv4 = /* @__PURE__ */ $constructor("ZodIPv4", (inst, def) => {
  $ZodIPv4.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodIPv6 = /* @__PURE__ */ $constructor("ZodIPv6", (inst, def) => {
  $ZodIPv6.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodCIDRv4 = /* @__PURE__ */ $constructor("ZodCIDRv4", (inst, def) => {
  $ZodCIDRv4.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodCIDRv6 = /* @__PURE__ */ $constructor("ZodCIDRv6", (inst, def) => {
  $ZodCIDRv6.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodBase64 = /* @__PURE__ */ $constructor("ZodBase64", (inst, def) => {
  $ZodBase64.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodBase64URL = /* @__PURE__ */ $constructor("ZodBase64URL", (inst, def) => {
  $ZodBase64URL.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodE164 = /* @__PURE__ */ $constructor("ZodE164", (inst, def) => {
  $ZodE164.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodJWT = /* @__PURE__ */ $constructor("ZodJWT", (inst, def) => {
  $ZodJWT.init(inst, def);
  ZodStringFormat.init(inst, def);
});
var ZodNumber = /* @__PURE__ */ $constructor(
  "ZodNumber",
  (inst, def) => {
    $ZodNumber.init(inst, def);
    ZodType.init(inst, def);
    inst._zod.processJSONSchema = (ctx, json, params) => numberProcessor(inst, ctx, json, params);
    inst.isFinite = true;
  },
  /* @__PURE__ */ util_exports.derived({
    minValue: (inst) => {
      const { minimum, exclusiveMinimum } = aggregateChecks(inst);
      return Math.max(minimum ?? Number.NEGATIVE_INFINITY, exclusiveMinimum ?? Number.NEGATIVE_INFINITY);
    },
    maxValue: (inst) => {
      const { maximum, exclusiveMaximum } = aggregateChecks(inst);
      return Math.min(maximum ?? Number.POSITIVE_INFINITY, exclusiveMaximum ?? Number.POSITIVE_INFINITY);
    },
    isInt: (inst) => {
      const { isInt, multipleOf } = aggregateChecks(inst);
      return !!isInt || !!multipleOf?.some(Number.isSafeInteger);
    },
    format: (inst) => aggregateChecks(inst).format ?? null
  }, {
    gt(value, params) {
      return this.check(_gt(value, params));
    },
    gte(value, params) {
      return this.check(_gte(value, params));
    },
    min(value, params) {
      return this.check(_gte(value, params));
    },
    lt(value, params) {
      return this.check(_lt(value, params));
    },
    lte(value, params) {
      return this.check(_lte(value, params));
    },
    max(value, params) {
      return this.check(_lte(value, params));
    },
    int(params) {
      return this.check(int(params));
    },
    safe(params) {
      return this.check(int(params));
    },
    positive(params) {
      return this.check(_gt(0, params));
    },
    nonnegative(params) {
      return this.check(_gte(0, params));
    },
    negative(params) {
      return this.check(_lt(0, params));
    },
    nonpositive(params) {
      return this.check(_lte(0, params));
    },
    multipleOf(value, params) {
      return this.check(_multipleOf(value, params));
    },
    step(value, params) {
      return this.check(_multipleOf(value, params));
    },
    finite() {
      return this;
    }
  })
);
function number3(params) {
  return _number(ZodNumber, params);
}
var ZodNumberFormat = /* @__PURE__ */ $constructor("ZodNumberFormat", (inst, def) => {
  $ZodNumberFormat.init(inst, def);
  ZodNumber.init(inst, def);
});
function int(params) {
  return _int(ZodNumberFormat, params);
}
var ZodNull = /* @__PURE__ */ $constructor("ZodNull", (inst, def) => {
  $ZodNull.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => nullProcessor(inst, ctx, json, params);
});
function _null3(params) {
  return _null2(ZodNull, params);
}
var ZodUnknown = /* @__PURE__ */ $constructor("ZodUnknown", (inst, def) => {
  $ZodUnknown.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => unknownProcessor(inst, ctx, json, params);
});
function unknown() {
  return _unknown(ZodUnknown);
}
var ZodNever = /* @__PURE__ */ $constructor("ZodNever", (inst, def) => {
  $ZodNever.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => neverProcessor(inst, ctx, json, params);
});
function never2(params) {
  return _never(ZodNever, params);
}
var ZodArray = /* @__PURE__ */ $constructor("ZodArray", (inst, def) => {
  _ensureDefaultMemoizer();
  $ZodArray.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => arrayProcessor(inst, ctx, json, params);
  inst.element = def.element;
}, {
  min(n2, params) {
    return this.check(_minLength(n2, params));
  },
  nonempty(params) {
    return this.check(_minLength(1, params));
  },
  max(n2, params) {
    return this.check(_maxLength(n2, params));
  },
  length(n2, params) {
    return this.check(_length(n2, params));
  },
  unwrap() {
    return this.element;
  }
});
function array2(element, params) {
  return _array(ZodArray, element, params);
}
var ZodObject = /* @__PURE__ */ $constructor("ZodObject", (inst, def) => {
  _ensureDefaultMemoizer();
  $ZodObjectJIT.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => objectProcessor(inst, ctx, json, params);
  util_exports.installLazyProp(inst, "shape", (self) => self._zod.def.shape, false);
}, {
  keyof() {
    return _enum(Object.keys(this._zod.def.shape));
  },
  catchall(catchall) {
    return this.clone(util_exports.mergeDefs(this._zod.def, { catchall }));
  },
  passthrough() {
    return this.clone(util_exports.mergeDefs(this._zod.def, { catchall: unknown() }));
  },
  loose() {
    return this.clone(util_exports.mergeDefs(this._zod.def, { catchall: unknown() }));
  },
  strict() {
    return this.clone(util_exports.mergeDefs(this._zod.def, { catchall: never2() }));
  },
  strip() {
    return this.clone(util_exports.mergeDefs(this._zod.def, { catchall: void 0 }));
  },
  extend(incoming) {
    return util_exports.extend(this, incoming);
  },
  safeExtend(incoming) {
    return util_exports.safeExtend(this, incoming);
  },
  merge(other) {
    return util_exports.merge(this, other);
  },
  pick(mask) {
    return util_exports.pick(this, mask);
  },
  omit(mask) {
    return util_exports.omit(this, mask);
  },
  partial(...args) {
    return util_exports.partial(ZodOptional, this, args[0]);
  },
  exactPartial(...args) {
    return util_exports.partial(ZodExactOptional, this, args[0], "exactPartial");
  },
  required(...args) {
    return util_exports.required(ZodNonOptional, this, args[0]);
  }
});
function strictObject(shape, params) {
  return new ZodObject({
    type: "object",
    shape,
    catchall: never2(),
    ...util_exports.normalizeParams(params)
  });
}
var ZodUnion = /* @__PURE__ */ $constructor("ZodUnion", (inst, def) => {
  $ZodUnion.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => unionProcessor(inst, ctx, json, params);
  inst.options = def.options;
});
function union(options, params) {
  return new ZodUnion({
    type: "union",
    options,
    ...util_exports.normalizeParams(params)
  });
}
var ZodIntersection = /* @__PURE__ */ $constructor("ZodIntersection", (inst, def) => {
  $ZodIntersection.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => intersectionProcessor(inst, ctx, json, params);
});
function intersection(left, right2) {
  return new ZodIntersection({
    type: "intersection",
    left,
    right: right2
  });
}
var ZodTuple = /* @__PURE__ */ $constructor("ZodTuple", (inst, def) => {
  _ensureDefaultMemoizer();
  $ZodTuple.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => tupleProcessor(inst, ctx, json, params);
}, {
  rest(rest) {
    return this.clone({
      ...this._zod.def,
      rest
    });
  },
  partial() {
    const def = this._zod.def;
    if (def.checks?.length)
      throw new Error(".partial() cannot be used on tuple schemas containing refinements");
    return this.clone({
      ...def,
      items: def.items.map((item) => new ZodOptional({ type: "optional", innerType: item }))
    });
  }
});
function tuple2(items, _paramsOrRest, _params) {
  const hasRest = _paramsOrRest instanceof $ZodType;
  const params = hasRest ? _params : _paramsOrRest;
  const rest = hasRest ? _paramsOrRest : null;
  return new ZodTuple({
    type: "tuple",
    items,
    rest,
    ...util_exports.normalizeParams(params)
  });
}
var ZodEnum = /* @__PURE__ */ $constructor("ZodEnum", (inst, def) => {
  $ZodEnum.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => enumProcessor(inst, ctx, json, params);
  inst.enum = def.entries;
  inst.options = [...inst._zod.values];
  const keys = new Set(Object.keys(def.entries));
  inst.extract = (values, params) => {
    const newEntries = {};
    for (const value of values) {
      if (keys.has(value)) {
        newEntries[value] = def.entries[value];
      } else
        throw new Error(`Key ${value} not found in enum`);
    }
    return new ZodEnum({
      ...def,
      checks: [],
      ...util_exports.normalizeParams(params),
      entries: newEntries
    });
  };
  inst.exclude = (values, params) => {
    const newEntries = { ...def.entries };
    for (const value of values) {
      if (keys.has(value)) {
        delete newEntries[value];
      } else
        throw new Error(`Key ${value} not found in enum`);
    }
    return new ZodEnum({
      ...def,
      checks: [],
      ...util_exports.normalizeParams(params),
      entries: newEntries
    });
  };
});
function _enum(values, params) {
  const entries = Array.isArray(values) ? Object.fromEntries(values.map((v) => [v, v])) : values;
  return new ZodEnum({
    type: "enum",
    entries,
    ...util_exports.normalizeParams(params)
  });
}
var ZodTransform = /* @__PURE__ */ $constructor("ZodTransform", (inst, def) => {
  _ensureDefaultMemoizer();
  $ZodTransform.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => transformProcessor(inst, ctx, json, params);
  inst._zod.parse = (payload, _ctx) => {
    if (_ctx.direction === "backward") {
      throw new $ZodEncodeError(inst.constructor.name);
    }
    payload.addIssue = (issue2) => {
      if (typeof issue2 === "string") {
        payload.issues.push(util_exports.issue(issue2, payload.value, def));
      } else {
        const _issue = issue2;
        if (_issue.fatal)
          _issue.continue = false;
        _issue.code ?? (_issue.code = "custom");
        if (!("input" in _issue))
          _issue.input = payload.value;
        _issue.inst ?? (_issue.inst = inst);
        payload.issues.push(util_exports.issue(_issue));
      }
    };
    const output = def.transform(payload.value, payload);
    if (output instanceof Promise) {
      return output.then((output2) => {
        payload.value = output2;
        return payload;
      });
    }
    payload.value = output;
    return payload;
  };
});
function transform(fn) {
  return new ZodTransform({
    type: "transform",
    transform: fn
  });
}
var ZodOptional = /* @__PURE__ */ $constructor("ZodOptional", (inst, def) => {
  $ZodOptional.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => optionalProcessor(inst, ctx, json, params);
  inst.unwrap = () => inst._zod.def.innerType;
});
function optional(innerType) {
  return new ZodOptional({
    type: "optional",
    innerType
  });
}
var ZodExactOptional = /* @__PURE__ */ $constructor("ZodExactOptional", (inst, def) => {
  $ZodExactOptional.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => optionalProcessor(inst, ctx, json, params);
  inst.unwrap = () => inst._zod.def.innerType;
});
function exactOptional(innerType) {
  return new ZodExactOptional({
    type: "optional",
    innerType
  });
}
var ZodNullable = /* @__PURE__ */ $constructor("ZodNullable", (inst, def) => {
  $ZodNullable.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => nullableProcessor(inst, ctx, json, params);
  inst.unwrap = () => inst._zod.def.innerType;
});
function nullable(innerType) {
  return new ZodNullable({
    type: "nullable",
    innerType
  });
}
var ZodDefault = /* @__PURE__ */ $constructor("ZodDefault", (inst, def) => {
  $ZodDefault.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => defaultProcessor(inst, ctx, json, params);
  inst.unwrap = () => inst._zod.def.innerType;
  inst.removeDefault = inst.unwrap;
});
function _default(innerType, defaultValue) {
  return new ZodDefault({
    type: "default",
    innerType,
    get defaultValue() {
      return typeof defaultValue === "function" ? defaultValue() : util_exports.shallowClone(defaultValue);
    }
  });
}
var ZodPrefault = /* @__PURE__ */ $constructor("ZodPrefault", (inst, def) => {
  $ZodPrefault.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => prefaultProcessor(inst, ctx, json, params);
  inst.unwrap = () => inst._zod.def.innerType;
});
function prefault(innerType, defaultValue) {
  return new ZodPrefault({
    type: "prefault",
    innerType,
    get defaultValue() {
      return typeof defaultValue === "function" ? defaultValue() : util_exports.shallowClone(defaultValue);
    }
  });
}
var ZodNonOptional = /* @__PURE__ */ $constructor("ZodNonOptional", (inst, def) => {
  $ZodNonOptional.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => nonoptionalProcessor(inst, ctx, json, params);
  inst.unwrap = () => inst._zod.def.innerType;
});
function nonoptional(innerType, params) {
  return new ZodNonOptional({
    type: "nonoptional",
    innerType,
    ...util_exports.normalizeParams(params)
  });
}
var ZodCatch = /* @__PURE__ */ $constructor("ZodCatch", (inst, def) => {
  $ZodCatch.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => catchProcessor(inst, ctx, json, params);
  inst.unwrap = () => inst._zod.def.innerType;
  inst.removeCatch = inst.unwrap;
});
function _catch(innerType, catchValue) {
  return new ZodCatch({
    type: "catch",
    innerType,
    catchValue: typeof catchValue === "function" ? catchValue : util_exports.constantCatch(catchValue)
  });
}
var ZodPipe = /* @__PURE__ */ $constructor("ZodPipe", (inst, def) => {
  $ZodPipe.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => pipeProcessor(inst, ctx, json, params);
  inst.in = def.in;
  inst.out = def.out;
});
function pipe(in_, out) {
  return new ZodPipe({
    type: "pipe",
    in: in_,
    out
    // ...util.normalizeParams(params),
  });
}
var ZodReadonly = /* @__PURE__ */ $constructor("ZodReadonly", (inst, def) => {
  $ZodReadonly.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => readonlyProcessor(inst, ctx, json, params);
  inst.unwrap = () => inst._zod.def.innerType;
});
function readonly(innerType) {
  return new ZodReadonly({
    type: "readonly",
    innerType
  });
}
var ZodCustom = /* @__PURE__ */ $constructor("ZodCustom", (inst, def) => {
  $ZodCustom.init(inst, def);
  ZodType.init(inst, def);
  inst._zod.processJSONSchema = (ctx, json, params) => customProcessor(inst, ctx, json, params);
});
function refine(fn, _params = {}) {
  return _refine(ZodCustom, fn, _params);
}
function superRefine(fn, params) {
  return _superRefine(fn, params);
}

// src/core/sandbox/strange.ts
var FUNCTION = () => void 0;
var TEMPORAL = Object.freeze({ [Symbol.toStringTag]: "Temporal.Object" });
var OBJECT = Object.freeze({ ["no value"]: null });
function strangeOf(number6) {
  return number6 === 0 /* Function */ ? FUNCTION : number6 === 1 /* Temporal */ ? TEMPORAL : OBJECT;
}
function revived(value, findRow) {
  if (typeof value !== "object" || value === null) return value;
  if (Array.isArray(value))
    return value.map((item) => revived(item, findRow));
  const given = value;
  if (Object.hasOwn(given, STRANGE_KEY)) return strangeIn(given[STRANGE_KEY], findRow);
  return Object.fromEntries(
    Object.entries(given).map(([name2, item]) => [name2, revived(item, findRow)])
  );
}
function strangeIn(told, findRow) {
  if (typeof told === "number") return strangeOf(told);
  if (typeof told === "string") return told === "undefined" ? void 0 : Number(told);
  if (Array.isArray(told) && typeof told[0] === "string" && typeof told[1] === "string")
    return findRow(told[0], told[1]) ?? OBJECT;
  return OBJECT;
}

// src/core/sandbox/wire.ts
var Untrue = class extends ScriptError {
  constructor() {
    super("wrong_use", "asked for something that is not there.");
  }
};
var Loose = { answer: 0, value: 1, previous: 2, extra: 3 };
function parsed(text3) {
  try {
    return JSON.parse(text3);
  } catch {
    throw new Untrue();
  }
}
var LONGEST = 8 * 1024 * 1024;
var HostWire = class {
  constructor(machine) {
    this.machine = machine;
  }
  machine;
  #texts = [];
  #numbers = /* @__PURE__ */ new Map();
  /** Frozen values that the scripts have, by identity, and how many there are. */
  #kept = /* @__PURE__ */ new Map();
  #characters = 0;
  /** Loose texts of the scripts' since the run began. */
  #loose = [];
  #base = { texts: 0, kept: [], characters: 0 };
  /** Forgets the loose texts of a run that is over. */
  endRun() {
    if (this.#loose.length > 0) this.#loose = [];
    if (this.#texts.length - this.#base.texts > MOST_TEXTS || this.#characters - this.#base.characters > MOST_CHARACTERS)
      this.cut();
  }
  /** What both have now is what they are cut back to. */
  setBase() {
    this.#base = { texts: this.#texts.length, kept: [...this.#kept], characters: this.#characters };
  }
  /** The machine was put back to when the base was set. */
  restored() {
    for (const text3 of this.#texts.splice(this.#base.texts)) this.#numbers.delete(text3);
    this.#kept = new Map(this.#base.kept);
    this.#characters = this.#base.characters;
    this.#loose = [];
  }
  /** Forgets everything: another machine, or the same before anything was loaded. */
  reset() {
    this.#base = { texts: 0, kept: [], characters: 0 };
    this.restored();
  }
  /** Cuts both lists back to the base. */
  cut() {
    this.restored();
    this.machine.cut(this.#base.texts, this.#base.kept.length);
  }
  /** The scripts' end says a text that this one has not met. */
  hearText() {
    const text3 = this.machine.given();
    if (text3.length > LONGEST_NUMBERED || this.#numbers.has(text3)) throw new Untrue();
    this.#add(text3);
  }
  /** A text too long to be numbered; its place goes into the payload. */
  hearLoose() {
    const text3 = this.machine.given();
    if (text3.length > LONGEST)
      throw new ScriptError("range", "handed over a text that is too long.");
    this.machine.cells[3 /* Payload */] = this.#loose.push(text3) - 1;
  }
  #add(text3) {
    const number6 = this.#texts.push(text3) - 1;
    this.#numbers.set(text3, number6);
    this.#characters += text3.length;
    return number6;
  }
  #numberOf(text3) {
    const known2 = this.#numbers.get(text3);
    if (known2 !== void 0) return known2;
    this.machine.putText(text3);
    return this.#add(text3);
  }
  text(number6) {
    const text3 = this.#texts[number6];
    if (text3 === void 0) throw new Untrue();
    return text3;
  }
  #looseText(place) {
    const text3 = this.#loose[place];
    if (text3 === void 0) throw new Untrue();
    this.#loose[place] = "";
    return text3;
  }
  /** What was offered, odd as it may be. */
  take(tag, payload, float, findRow) {
    const { cells: cells2 } = this.machine;
    switch (cells2[tag]) {
      case 3 /* True */:
        return true;
      case 2 /* False */:
        return false;
      case 1 /* Null */:
        return null;
      case 0 /* Undefined */:
        return void 0;
      case 4 /* Number */:
        return this.machine.floats[float];
      case 5 /* Text */:
        return this.text(cells2[payload]);
      case 6 /* Json */:
        return revived(parsed(this.text(cells2[payload])), findRow);
      case 7 /* LooseText */:
        return this.#looseText(cells2[payload]);
      case 8 /* LooseJson */:
        return revived(parsed(this.#looseText(cells2[payload])), findRow);
      case 11 /* Strange */:
        return strangeOf(cells2[payload]);
      default:
        throw new Untrue();
    }
  }
  /** A value of a trace, which is plain. */
  traced(tag, payload) {
    switch (tag) {
      case 3 /* True */:
        return true;
      case 2 /* False */:
        return false;
      case 1 /* Null */:
        return null;
      case 14 /* Integer */:
        return payload;
      case 6 /* Json */:
        return parsed(this.text(payload));
      case 8 /* LooseJson */:
        return parsed(this.#looseText(payload));
      default:
        throw new Untrue();
    }
  }
  /** Tells a value. `loose` is the place for a text too long for a number. */
  give(value, tag = 2 /* Tag */, payload = 3 /* Payload */, float = 2 /* Answer */, loose = Loose.answer) {
    if (typeof value === "string")
      return this.#giveText(value, tag, payload, loose, 5 /* Text */, 7 /* LooseText */);
    if (typeof value === "object" && value !== null)
      return this.#giveObject(value, tag, payload, loose);
    const { cells: cells2 } = this.machine;
    if (value === true) cells2[tag] = 3 /* True */;
    else if (value === false) cells2[tag] = 2 /* False */;
    else if (value === null) cells2[tag] = 1 /* Null */;
    else if (typeof value === "number") {
      cells2[tag] = 4 /* Number */;
      this.machine.floats[float] = value;
    } else cells2[tag] = 0 /* Undefined */;
  }
  #giveText(text3, tag, payload, loose, numbered, long) {
    let at = loose;
    if (text3.length <= LONGEST_NUMBERED) at = this.#numberOf(text3);
    else this.machine.putLoose(loose, text3);
    const { cells: cells2 } = this.machine;
    cells2[tag] = text3.length <= LONGEST_NUMBERED ? numbered : long;
    cells2[payload] = at;
  }
  /** Frozen values are handed over once; what reads the same in few characters is the same there too. */
  #giveObject(value, tag, payload, loose) {
    const known2 = this.#kept.get(value);
    if (known2 !== void 0) {
      const { cells: cells2 } = this.machine;
      cells2[tag] = 9 /* Kept */;
      cells2[payload] = known2;
      return;
    }
    const text3 = JSON.stringify(value);
    const keep = text3.length > LONGEST_NUMBERED && Object.isFrozen(value);
    this.#giveText(text3, tag, payload, loose, 6 /* Json */, keep ? 10 /* KeepJson */ : 8 /* LooseJson */);
    if (!keep) return;
    this.#kept.set(value, this.#kept.size);
    this.#characters += text3.length;
  }
  /** Answers that it cannot be done. */
  giveFault(fault) {
    this.#giveText(fault.message, 2 /* Tag */, 3 /* Payload */, Loose.answer, 12 /* Fault */, 13 /* LooseFault */);
    this.machine.cells[7 /* More */] = FAILURES.indexOf(fault.code);
  }
  /** The words of a run that failed, as the guest told them. */
  takeFailure() {
    const { cells: cells2 } = this.machine;
    const code = FAILURES[cells2[7 /* More */]];
    const at = cells2[3 /* Payload */];
    if (code === void 0) throw new Untrue();
    return {
      code,
      says: cutText(cells2[2 /* Tag */] === 13 /* LooseFault */ ? this.#looseText(at) : this.text(at))
    };
  }
};

// src/core/sandbox/acts.ts
var number4 = int().min(0).max(2 ** 31);
var line = number4;
var offered = unknown();
var name = string3().max(1e3);
var nothing2 = _null3();
var SCHEMAS = {
  tie: strictObject({
    event: _enum(Object.keys(TIED_TO)),
    to: array2(union([number4, tuple2([number4, name])])).max(1e4),
    tie: number4,
    line,
    overlap: _enum(["supersede", "all"])
  }),
  untie: strictObject({ tie: number4 }),
  keep: strictObject({ tie: number4, title: string3(), line }),
  keepEach: strictObject({ field: number4, tie: number4, title: string3(), line }),
  rows: strictObject({ field: number4 }),
  addRow: strictObject({ field: number4, values: offered }),
  removeRow: strictObject({ field: number4, row: number4 }),
  call: strictObject({ service: name, function: name, args: offered }),
  after: strictObject({ milliseconds: number3().min(0).max(864e5) }),
  parent: nothing2,
  parentGet: strictObject({ name }),
  parentSet: strictObject({ name, to: offered }),
  message: strictObject({
    text: string3().transform(cutText),
    tone: _enum(["info", "warning", "error"])
  }),
  clear: nothing2,
  reset: nothing2,
  submit: nothing2,
  openPage: strictObject({ page: number4 }),
  log: strictObject({ values: array2(offered) }),
  stop: strictObject({
    event: number4,
    says: string3().min(1).transform(cutText),
    part: number4.nullable()
  }),
  zone: strictObject({ zone: name, at: number3() })
};
var Envelope = tuple2([_enum(Object.keys(SCHEMAS)), unknown()]);
function readAct(told) {
  const envelope = Envelope.safeParse(told);
  if (!envelope.success) throw new Untrue();
  const [act, asked2] = envelope.data;
  const read2 = SCHEMAS[act].safeParse(asked2);
  if (!read2.success) throw new Untrue();
  return { name: act, asked: read2.data };
}
var TYINGS = /* @__PURE__ */ new Set(["tie", "untie", "keep", "keepEach", "zone"]);
function isTying(act) {
  return TYINGS.has(act);
}
function tyingDoers(numbers, tying) {
  const field3 = (at) => partOf(numbers, at, "field");
  const made = (tie, title, line_, rows3) => {
    tying.tie({
      is: "rule",
      number: tie,
      behaviour: tying.behaviour(),
      title,
      line: tying.line(line_),
      order: tying.nextOrder(),
      rows: rows3
    });
    return null;
  };
  return {
    tie({ event, to, tie, line: line_, overlap }) {
      const sort = TIED_TO[event];
      if (sort === "form" !== (to.length === 0)) {
        if (sort === "form" || to.length > 0) throw new Untrue();
      }
      const keys = sort === "form" ? [keyOf2(event, null)] : to.map(
        (one) => typeof one === "number" ? keyOf2(event, partOf(numbers, one, sort === "button" ? "button" : "field")) : columnOf2(event, field3(one[0]), one[1])
      );
      tying.tie({
        is: "handler",
        number: tie,
        behaviour: tying.behaviour(),
        event,
        keys,
        overlap,
        line: tying.line(line_),
        order: tying.nextOrder()
      });
      return null;
    },
    untie({ tie }) {
      tying.untie(tie);
      return null;
    },
    keep: ({ tie, title, line: line_ }) => made(tie, title, line_, null),
    keepEach({ field: at, tie, title, line: line_ }) {
      const part = field3(at);
      if (part.rows === null) throw new Untrue();
      return made(tie, title, line_, part.name);
    },
    zone: ({ zone, at }) => wallClock(zone, at) ?? []
  };
}
function columnOf2(event, part, column) {
  if (part.rows === null || !part.rows.columns.has(column)) throw new Untrue();
  return columnKey(event, part.name, column);
}
function partOf(numbers, at, sort) {
  const part = numbers.part(at);
  if (part === null || part.sort !== sort || part.row !== null) throw new Untrue();
  return part;
}
function done(act) {
  act();
  return null;
}
function deskDoers(numbers, desk) {
  const rowsField = (at) => {
    const part = partOf(numbers, at, "field");
    if (part.rows === null) throw new Untrue();
    return part;
  };
  return {
    rows: ({ field: field3 }) => desk.rows(rowsField(field3)).flatMap((row2) => [numbers.numberOfRow(row2), Number(row2.id)]),
    addRow({ field: field3, values }, at) {
      const row2 = desk.addRow(rowsField(field3), values ?? void 0, at);
      return [numbers.numberOfRow(row2), Number(row2.id)];
    },
    removeRow({ field: field3, row: at }, on) {
      const row2 = numbers.row(at);
      if (row2 === null) throw new Untrue();
      return done(() => desk.removeRow(rowsField(field3), row2, on));
    },
    call: ({ service, function: called, args }, at) => desk.callService(service, called, args, at),
    after: ({ milliseconds }, at) => desk.after(milliseconds, at),
    parent: () => desk.hasParent,
    parentGet: ({ name: of }) => {
      if (!desk.hasParent) throw new Untrue();
      return desk.parentValue(of);
    },
    parentSet: ({ name: of, to }, at) => {
      if (!desk.hasParent) throw new Untrue();
      return desk.setInParent(of, to ?? null, at);
    },
    message: ({ text: text3, tone }, at) => done(() => desk.run.message(text3, tone, at)),
    clear: (_, at) => done(() => desk.clear(at)),
    reset: (_, at) => done(() => desk.reset(at)),
    submit: () => done(() => desk.submit()),
    openPage: ({ page }, at) => done(() => desk.openPage(partOf(numbers, page, "page"), at)),
    log: ({ values }, at) => done(() => desk.run.log(values, at)),
    stop({ event, says, part: at }) {
      const part = at === null ? null : numbers.part(at);
      if (part === null && at !== null) throw new Untrue();
      return done(() => desk.stop(event, says, part));
    }
  };
}

// src/core/wire/slots.ts
var SLOT_OF = {
  shown: 1 /* Shown */,
  value: 0 /* Value */,
  required: 3 /* Required */,
  locked: 2 /* Locked */,
  options: 4 /* Options */,
  hint: 5 /* Hint */,
  warning: 6 /* Warning */,
  problem: 7 /* Problem */,
  label: 8 /* Label */,
  stage: 9 /* Stage */,
  message: 22 /* Message */,
  replaced: 23 /* Replaced */
};

// src/core/sandbox/asking-aspects.ts
var aspect = (name2, says) => ({
  name: name2,
  says,
  read: null,
  called: name2
});
var derived2 = (called, read2) => ({
  name: null,
  says: false,
  read: read2,
  called
});
var field = (part) => part.sort === "field" ? part : untrue();
var rows = (part) => part.rows ?? untrue();
var row = (part) => part.sort === "row" ? part.row : untrue();
var ofForm = (read2) => (desk, part) => part.sort === "form" ? read2(desk) : untrue();
function untrue() {
  throw new Untrue();
}
var versions = /* @__PURE__ */ new WeakMap();
var lastVersion = 0;
function versionOf(list2) {
  let version2 = versions.get(list2);
  if (version2 === void 0) versions.set(list2, version2 = ++lastVersion);
  return version2;
}
var COMPUTED = {
  [10 /* OnScreen */]: derived2("onScreen", (desk, part) => desk.onScreen(part)),
  [11 /* Editable */]: derived2("editable", (desk, part) => desk.editable(part)),
  [12 /* Previous */]: derived2("previous", (desk, part) => desk.previous(field(part))),
  [13 /* Initial */]: derived2("initial", (desk, part) => desk.initial(field(part))),
  [14 /* Orphan */]: derived2("orphan", (desk, part) => desk.orphan(field(part))),
  [15 /* OptionLabel */]: derived2("optionLabel", (desk, part) => desk.optionLabel(field(part))),
  [16 /* Rows */]: derived2("rows", (desk, part) => versionOf((rows(part), desk.rows(part)))),
  [17 /* Count */]: derived2("count", (desk, part) => (rows(part), desk.count(part))),
  [18 /* Sum */]: derived2(
    "sum",
    (desk, part, more) => desk.sum(part, rows(part).columnNames[more] ?? untrue())
  ),
  [19 /* Values */]: aspect("values", false),
  [20 /* Index */]: derived2("index", (desk, part) => desk.index(row(part))),
  [21 /* Changed */]: aspect("changed", false),
  [24 /* IsNew */]: derived2(
    "isNew",
    ofForm((desk) => desk.standing("isNew"))
  ),
  [25 /* Record */]: derived2(
    "record",
    ofForm((desk) => desk.standing("record"))
  ),
  [26 /* Person */]: derived2(
    "person",
    ofForm((desk) => desk.standing("person"))
  ),
  [27 /* Launch */]: derived2(
    "launch",
    ofForm((desk) => desk.standing("launch"))
  ),
  [28 /* Viewing */]: derived2(
    "viewing",
    ofForm((desk) => desk.standing("viewing"))
  ),
  [29 /* Zone */]: derived2(
    "the time zone",
    ofForm((desk) => desk.zone)
  )
};
var asOffered = (desk, part) => desk.options(field(part));
var SAID_BY_SLOT = new Map(
  SAID.map((name2) => [
    SLOT_OF[name2],
    name2 === "options" ? { ...aspect(name2, true), read: asOffered } : aspect(name2, true)
  ])
);
var MEANINGS = Array.from(
  { length: SLOTS },
  (_, slot) => SAID_BY_SLOT.get(slot) ?? COMPUTED[slot]
);
var SLOT_MASK = (1 << SLOT_BITS) - 1;
function readAspect(desk, numbers, number6, more) {
  const part = numbers.part(number6 >> SLOT_BITS) ?? untrue();
  const meaning = MEANINGS[number6 & SLOT_MASK] ?? untrue();
  if (meaning.read !== null) {
    if (meaning.name === "options") holdsKeysOrNone(part);
    return meaning.read(desk, part, more);
  }
  const name2 = meaning.name;
  const known2 = part.aspects[name2];
  if (known2 === void 0 && !part.has(name2)) untrue();
  return desk.read(part, name2);
}
function holdsKeysOrNone(part) {
  if (part.sort !== "field" || part.rows !== null) untrue();
}
function calledAspect(numbers, number6) {
  const part = numbers?.part(number6 >> SLOT_BITS) ?? null;
  const meaning = MEANINGS[number6 & SLOT_MASK];
  const called = meaning?.called ?? "something";
  return part === null ? called : part.sort === "form" ? `form.${called}` : `${part.name}.${called}`;
}
function sayAspect(desk, numbers, number6, said, line2) {
  const part = numbers.part(number6 >> SLOT_BITS) ?? untrue();
  const meaning = MEANINGS[number6 & SLOT_MASK] ?? untrue();
  const { name: name2 } = meaning;
  if (name2 === null || !meaning.says || !part.has(name2)) return untrue();
  desk.say(part, name2, said, line2);
}

// src/core/sandbox/questions.ts
var TIES_PER_BEHAVIOUR = 1e5;
var Questions = class {
  constructor(machine, wire, trace, tell3) {
    this.machine = machine;
    this.wire = wire;
    this.trace = trace;
    this.tell = tell3;
    machine.answerWith(() => this.#answer());
  }
  machine;
  wire;
  trace;
  tell;
  #material = null;
  #modules = [];
  /** The behaviour of each tie, by the tie's number. */
  #ties = [];
  #orders = 0;
  #open = null;
  /** Where ties go while the top levels are evaluated. */
  #loading = null;
  /** The behaviour that runs, by its place among the scripts. */
  running = 0;
  /** Something thrown while the machine stood between the two ends. */
  #mistake = null;
  #findRow = (table, key) => this.#open?.desk.tableRow(table, key) ?? null;
  /** Where detailed runs report; null where none are. */
  reports = null;
  /** Top levels are evaluated from now on; what they tie goes to `tie` and `untie`. */
  beginLoading(material, numbers, { tie, untie }) {
    this.#material = material;
    this.#modules = material.modules.map(({ name: name2 }) => name2);
    this.#ties = [];
    this.#orders = 0;
    this.#open = null;
    this.#loading = { parts: numbers, doers: tyingDoers(numbers, this.#tying(tie, untie)) };
  }
  endLoading() {
    this.#loading = null;
  }
  /** How many ties there are, and going back to so many. */
  get ties() {
    return this.#ties.length;
  }
  backTo(ties) {
    this.#ties.length = ties;
    this.#open = null;
  }
  /** A behaviour's top level failed: what it tied is gone. */
  forgetTies(ties) {
    this.#ties.length = ties;
  }
  behaviourOf(tie) {
    return this.#ties[tie];
  }
  /** The form whose desk is asked from now on. */
  at(desk) {
    if (this.#open?.desk === desk) return this.#open;
    const numbers = new Numbers(desk.parts);
    const tying = this.#tying(
      (one) => desk.tie(one),
      (number6) => desk.untie(number6)
    );
    this.#open = {
      desk,
      numbers,
      doers: { ...deskDoers(numbers, desk), ...tyingDoers(numbers, tying) }
    };
    return this.#open;
  }
  /** The session's clock; NaN while no form is open. */
  get now() {
    return this.#open?.desk.now ?? NaN;
  }
  #tying(tie, untie) {
    return {
      tie,
      untie,
      behaviour: () => {
        const { name: name2, title } = this.#material.scripts[this.running];
        return { name: name2, title, index: this.running };
      },
      line: (place) => this.lineOf(place),
      nextOrder: () => this.running * TIES_PER_BEHAVIOUR + this.#orders++
    };
  }
  /** Throws what could not be thrown while the machine stood in between. */
  throwMistake() {
    if (this.#mistake === null) return;
    const { caught } = this.#mistake;
    this.#mistake = null;
    throw caught;
  }
  /** Answers what scripts ask. Nothing may be thrown from here: the machine stands between the two ends. */
  #answer() {
    try {
      this.#do(this.machine.cells[0 /* Op */]);
    } catch (caught) {
      this.#fault(caught);
    }
  }
  #fault(caught) {
    if (!(caught instanceof ScriptError) && !(caught instanceof OutOfRoom))
      this.#mistake ??= { caught };
    const fault = caught instanceof ScriptError ? caught : new ScriptError("memory", words.memory);
    if (!(caught instanceof ScriptError) || caught instanceof Untrue)
      this.#open?.desk.run.blame(fault);
    try {
      this.wire.giveFault(fault);
    } catch {
      this.machine.cells[2 /* Tag */] = 0;
    }
  }
  #do(op) {
    const { cells: cells2 } = this.machine;
    switch (op) {
      case 1 /* Read */:
        return this.wire.give(this.#read(cells2[1 /* Aspect */], cells2[7 /* More */]));
      case 2 /* Say */: {
        const said = this.wire.take(2 /* Tag */, 3 /* Payload */, 2 /* Answer */, this.#findRow);
        const { desk, numbers } = this.#atDesk(cells2[1 /* Aspect */], "written");
        sayAspect(desk, numbers, cells2[1 /* Aspect */], said, this.lineOf(cells2[6 /* Line */]));
        cells2[2 /* Tag */] = 0;
        return;
      }
      case 3 /* NewText */:
        return this.wire.hearText();
      case 4 /* LooseText */:
        return this.wire.hearLoose();
      case 5 /* Act */:
        return this.#act(this.lineOf(cells2[6 /* Line */]));
      case 6 /* Random */:
        this.machine.floats[2 /* Answer */] = this.#open?.desk.random() ?? 0;
        return;
      case 7 /* Trace */:
        return this.trace.empty();
      case 9 /* Detail */:
        return this.#report();
      case 8 /* Tell */:
        return this.#whereabouts(cells2[7 /* More */], this.lineOf(cells2[6 /* Line */]));
      default:
        throw new Untrue();
    }
  }
  #report() {
    const { cells: cells2 } = this.machine;
    const { reports } = this;
    if (reports === null || this.#open === null) throw new Untrue();
    const what = cells2[7 /* More */];
    if (what === 11 /* Ask */ || what === 12 /* Asked */ || what === 13 /* AskFailed */)
      this.#open.desk.run.asking(what === 11 /* Ask */);
    const { script, line: site } = placeOf(
      this.lineOf(cells2[6 /* Line */]),
      this.#material.scripts[this.running].name
    );
    const value = cells2[2 /* Tag */] === 0 /* Undefined */ ? null : this.wire.traced(cells2[2 /* Tag */], cells2[3 /* Payload */]);
    const turned = reports.report(what, { script, site }, cells2[1 /* Aspect */], value);
    cells2[7 /* More */] = turned ? 1 : 0;
  }
  /** The line that a number of the machine's stands for. */
  lineOf(place) {
    return lineFrom(place, this.#modules);
  }
  /** Scripts are numbered behind each other: behaviours, those of services, modules. */
  #whereabouts(number6, line2) {
    const { scripts, answering, modules } = this.#material;
    const script = [...scripts, ...answering, ...modules][number6];
    this.tell?.(
      script?.name ?? "",
      placeOf(line2, "").script === script?.name ? placeOf(line2, "").line : line2
    );
  }
  #read(aspect2, more) {
    const { desk, numbers } = this.#atDesk(aspect2, "read");
    return readAspect(desk, numbers, aspect2, more);
  }
  /** Where an aspect is asked for. Throws the fault of asking where no form is open. */
  #atDesk(aspect2, done2) {
    if (this.#open !== null) return this.#open;
    throw new ScriptError(
      "wrong_use",
      words.topLevel(`${calledAspect(this.#loading?.parts ?? null, aspect2)} was ${done2}`)
    );
  }
  #act(line2) {
    const { name: name2, asked: asked2 } = readAct(
      this.wire.take(2 /* Tag */, 3 /* Payload */, 2 /* Answer */, this.#findRow)
    );
    const doers = this.#open?.doers ?? (isTying(name2) ? this.#loading?.doers : void 0);
    if (doers === void 0) throw new Untrue();
    const ties = name2 === "tie" || name2 === "keep" || name2 === "keepEach";
    if (ties && asked2.tie !== this.#ties.length) throw new Untrue();
    const answer = doers[name2](
      asked2,
      line2
    );
    if (ties) this.#ties.push(this.running);
    this.wire.give(answer);
  }
};

// src/core/sandbox/surroundings.ts
function surroundingsOf({ form: form2, tables, services }) {
  return {
    parts: [...partsOf(form2).byName.values()].map((part) => ({
      sort: part.sort,
      name: part.name,
      label: part.sort === "form" ? form2.title : part.label,
      kind: part.sort === "field" ? part.field.kind : null,
      table: part.sort === "field" && part.field.kind === "reference" ? part.field.table : null,
      columns: part.rows === null ? null : [...part.rows.columns.values()].map(({ field: field3 }) => ({
        sort: "field",
        name: field3.name,
        label: field3.label,
        kind: field3.kind,
        table: field3.kind === "reference" ? field3.table : null,
        columns: null
      }))
    })),
    tables: tables.map(({ name: name2, key, rows: rows3 }) => ({ name: name2, key, rows: [...rows3] })),
    services: services.map(({ name: name2, functions }) => ({ name: name2, functions: Object.keys(functions) }))
  };
}

// src/core/sandbox/trace.ts
var Trace = class {
  constructor(wire) {
    this.wire = wire;
  }
  wire;
  #hits = /* @__PURE__ */ new Map();
  #values = [];
  #cut = false;
  #expressions = [];
  /** The modules of the material, whose lines stand above those of the script that runs (`wire/line.ts`). */
  #modules = [];
  begin(expressions, modules) {
    this.#expressions = expressions;
    this.#modules = modules;
    this.#hits = /* @__PURE__ */ new Map();
    this.#values = [];
    this.#cut = false;
  }
  /** Reads what stands in the memory so far. */
  empty() {
    const { cells: cells2 } = this.wire.machine;
    const end = Math.min(cells2[9 /* TraceEnd */], cells2.length);
    for (let at = 64 /* Trace */; at < end; ) {
      const line2 = cells2[at];
      if (line2 > 0) {
        this.#hits.set(line2, (this.#hits.get(line2) ?? 0) + 1);
        at++;
        continue;
      }
      const place = Math.floor(-line2 / MODULE_STEP);
      const expressions = place === 0 ? this.#expressions : this.#modules[place - 1]?.expressions;
      const what = expressions?.[cells2[at + 1]];
      if (what === void 0 || line2 === 0 || at + 4 > end) throw new Untrue();
      if (this.#values.length < VALUES_KEPT)
        this.#values.push({
          line: this.#line(-line2),
          what,
          value: this.wire.traced(cells2[at + 2], cells2[at + 3])
        });
      else this.#cut = true;
      at += 4;
    }
  }
  #line(place) {
    return lineFrom(
      place,
      this.#modules.map(({ name: name2 }) => name2)
    );
  }
  /** All that was traced; lines in their order. */
  take() {
    return {
      lines: [...this.#hits].sort((a, b) => a[0] - b[0]).map(([place, count]) => [this.#line(place), count]),
      values: this.#values,
      cut: this.#cut
    };
  }
};

// src/core/sandbox/host.ts
var NOTHING5 = [];
var MOST_CHECKED = 200;
var Host = class {
  constructor(machine, tell3) {
    this.machine = machine;
    this.#wire = new HostWire(machine);
    this.#trace = new Trace(this.#wire);
    this.#questions = new Questions(machine, this.#wire, this.#trace, tell3);
  }
  machine;
  #wire;
  #trace;
  #questions;
  #material = null;
  #loadedTies = 0;
  /** Texts that were checked against patterns lately; a slow one is not run again with every step. */
  #fits = /* @__PURE__ */ new Map();
  /** The behaviours of runs that wait. */
  #waits = /* @__PURE__ */ new Map();
  /** Evaluates the behaviours' top levels in a machine that is as it booted; from here every opening starts. */
  load(material, watched) {
    this.#wire.reset();
    this.#material = material;
    const { cells: cells2, floats } = this.machine;
    cells2[31 /* Watched */] = watched ? 1 : 0;
    cells2[40 /* Mutant */] = material.mutant ?? 0;
    floats[16 /* Clock */] = NaN;
    let tied = [];
    this.#questions.beginLoading(material, new Numbers(partsOf(material.form)), {
      tie: (one) => void tied.push(one),
      untie: (number6) => void (tied = tied.filter((one) => one.number !== number6))
    });
    this.#hand("surround", JSON.stringify(surroundingsOf(material)));
    material.modules.forEach((module, index) => this.#loadModule(module, index));
    const failures2 = [];
    material.scripts.forEach((script, index) => {
      const before = [...tied];
      const failure2 = this.#loadBehaviour(script, index);
      if (failure2 === null) return;
      tied = before;
      failures2.push({ ...failure2, behaviour: script.name });
    });
    material.answering.forEach(({ code }, index) => {
      this.#questions.running = material.scripts.length + index;
      if (code !== null) this.#hand("loadService", code, this.#questions.running);
    });
    this.#questions.endLoading();
    this.#loadedTies = this.#questions.ties;
    this.#wire.setBase();
    return { tied, failures: failures2 };
  }
  #loadBehaviour(script, index) {
    if (script.code === null) return script.failure;
    this.#questions.running = index;
    const { ties } = this.#questions;
    this.#trace.begin(NOTHING5, this.#material.modules);
    try {
      this.machine.cells[0 /* Op */] = 0 /* Ended */;
      const through = this.#hand("load", script.code, index);
      const failure2 = through ? this.machine.cells[0 /* Op */] === 2 /* Failed */ ? this.#wire.takeFailure() : null : this.#lost();
      if (failure2 !== null) this.#questions.forgetTies(ties);
      return failure2 === null ? null : { ...failure2, line: this.#line(1) };
    } finally {
      this.#wire.endRun();
    }
  }
  /** One that fails is remembered there with the reason, for whoever imports from it. */
  #loadModule({ name: name2, code, failure: failure2 }, index) {
    const { scripts, answering } = this.#material;
    const why = failure2 === null ? null : { line: failure2.line, says: failure2.says };
    this.#questions.running = scripts.length + answering.length + index;
    try {
      const through = this.#hand(
        "loadModule",
        JSON.stringify({ name: name2, code, why, index }),
        this.#questions.running
      );
      if (!through) {
        const { says } = this.#lost();
        const stopped = { name: name2, code: null, why: { line: null, says }, index };
        this.#hand("loadModule", JSON.stringify(stopped), this.#questions.running);
      }
    } finally {
      this.#wire.endRun();
    }
  }
  /** Calls the guest with a loose text and a number. */
  #hand(entry, text3, number6 = 0) {
    this.machine.putLoose(Loose.answer, text3);
    this.machine.cells[7 /* More */] = number6;
    return this.machine.call(entry);
  }
  /** Where detailed runs report from now on; null where nobody looks. */
  reportTo(reports) {
    this.#questions.reports = reports;
  }
  /** The machine was put back to when the top levels had been evaluated. */
  restored() {
    this.#wire.restored();
    this.#questions.backTo(this.#loadedTies);
    this.#waits.clear();
  }
  /** Switches a mutant on until the machine is put back. */
  mutate(mutant) {
    this.machine.cells[40 /* Mutant */] = mutant;
  }
  /** The mutants up to a number whose places were reached since the scripts were loaded. */
  reached(most) {
    const { cells: cells2 } = this.machine;
    const reached = [];
    for (let mutant = 1; mutant <= most; mutant++)
      if ((cells2[64 /* Trace */ + (mutant >> 5)] >> (mutant & 31) & 1) === 1) reached.push(mutant);
    return reached;
  }
  run(tie, run2, given, desk) {
    const open2 = this.#questions.at(desk);
    this.#questions.running = this.#questions.behaviourOf(tie);
    return this.#cross("run", desk, () => {
      if (given.is === "event") this.#giveEvent(given.event, given.stops, open2.numbers);
      const { cells: cells2 } = this.machine;
      cells2[11 /* Tie */] = tie;
      cells2[12 /* Run */] = run2;
      if (given.is === "nothing") cells2[13 /* Given */] = 0 /* Nothing */;
      else if (given.is === "event") cells2[13 /* Given */] = 2 /* Event */;
      else {
        cells2[13 /* Given */] = 1 /* Row */;
        this.#giveRow(given.row, open2.numbers);
      }
    });
  }
  resume(run2, call, came, desk) {
    this.#questions.at(desk);
    this.#questions.running = this.#waits.get(run2) ?? 0;
    return this.#cross(
      "resume",
      desk,
      () => {
        this.#wire.give(
          came.ok ? came.value : came.reason,
          20 /* ValueTag */,
          21 /* ValuePayload */,
          11 /* Value */,
          Loose.value
        );
        const { cells: cells2 } = this.machine;
        cells2[12 /* Run */] = run2;
        cells2[30 /* Call */] = call;
        cells2[7 /* More */] = came.ok ? 0 : 1;
      },
      run2
    );
  }
  #giveRow(row2, numbers) {
    const { cells: cells2 } = this.machine;
    cells2[15 /* Row */] = numbers.numberOfRow(row2);
    cells2[16 /* RowField */] = numbers.numberOf(row2.rows.field);
    cells2[17 /* RowId */] = Number(row2.id);
  }
  #giveEvent({ part, row: row2, value, previous, by, extra }, stops2, numbers) {
    const wire = this.#wire;
    wire.give(value, 20 /* ValueTag */, 21 /* ValuePayload */, 11 /* Value */, Loose.value);
    wire.give(previous, 24 /* PreviousTag */, 25 /* PreviousPayload */, 13 /* Previous */, Loose.previous);
    wire.give(extra, 28 /* ExtraTag */, 29 /* ExtraPayload */, 2 /* Answer */, Loose.extra);
    const { cells: cells2 } = this.machine;
    cells2[14 /* Part */] = part === null ? -1 : numbers.numberOf(part);
    cells2[15 /* Row */] = -1;
    if (row2 !== null) this.#giveRow(row2, numbers);
    cells2[18 /* By */] = BY.indexOf(by);
    cells2[19 /* Event */] = stops2;
  }
  #cross(entry, desk, give, run2 = null) {
    const { traced, scripts, modules } = this.#material;
    if (traced)
      this.#trace.begin(scripts[this.#questions.running]?.expressions ?? NOTHING5, modules);
    let failure2 = null;
    let open2 = false;
    try {
      give();
      const machine = this.machine;
      machine.cells[8 /* Traced */] = traced ? 1 /* Lines */ | (this.#questions.reports?.tracing ?? 0) : 0;
      machine.floats[16 /* Clock */] = desk.now;
      if (machine.call(entry)) {
        const came = machine.cells[0 /* Op */];
        open2 = came === 1 /* Open */;
        if (came === 2 /* Failed */) failure2 = this.#wire.takeFailure();
        else if (came !== 0 /* Ended */ && came !== 1 /* Open */)
          failure2 = { code: "wrong_use", says: new Untrue().message };
        if (traced) this.#trace.empty();
      } else failure2 = this.#lost();
    } catch (caught) {
      failure2 = this.#stumbled(caught);
    }
    this.#questions.throwMistake();
    const { cells: cells2 } = this.machine;
    const number6 = run2 ?? cells2[12 /* Run */];
    if (open2) this.#waits.set(number6, this.#questions.running);
    else this.#waits.delete(number6);
    const ended = {
      failure: failure2,
      open: open2,
      line: this.#line(),
      fuel: cells2[10 /* Fuel */],
      trace: traced ? this.#trace.take() : null
    };
    this.#wire.endRun();
    return ended;
  }
  /** The run was stopped from outside: the machine is asked where it was, and both lists begin again. Throws MachineDied. */
  #lost() {
    const late = this.machine.wasInterrupted;
    this.#wire.cut();
    this.machine.call("lost");
    return late ? { code: "stuck", says: words.interrupted } : { code: "memory", says: words.memory };
  }
  /** Something went wrong on the way in or out. A machine that died is not for the run to bear. */
  #stumbled(caught) {
    if (caught instanceof OutOfRoom) return this.#lost();
    if (caught instanceof ScriptError) return { code: caught.code, says: caught.message };
    throw caught;
  }
  /** Where the script is that runs, or was; at least `least`. */
  #line(least = 0) {
    return this.#questions.lineOf(Math.max(least, this.machine.cells[6 /* Line */]));
  }
  fits(pattern, text3) {
    const key = `${pattern}
${text3}`;
    const known2 = this.#fits.get(key);
    if (known2 !== void 0) return known2;
    if (this.#fits.size >= MOST_CHECKED) this.#fits.clear();
    const fits2 = this.machine.fits(pattern, text3);
    this.#fits.set(key, fits2);
    return fits2;
  }
  drop(run2) {
    this.#waits.delete(run2);
    this.machine.cells[12 /* Run */] = run2;
    this.machine.call("drop");
  }
  answer(service, args) {
    const at = this.#material.answering.filter(({ code }) => code !== null).findIndex(
      ({ name: name2 }) => name2 === service
    );
    if (at < 0) return null;
    const machine = this.machine;
    try {
      machine.floats[16 /* Clock */] = this.#questions.now;
      if (!this.#hand("answer", JSON.stringify(args), at)) {
        this.#lost();
        return { ok: false, line: this.#line() };
      }
      if (machine.cells[0 /* Op */] !== 0 /* Ended */) return { ok: false, line: this.#line() };
      return {
        ok: true,
        value: deepFreeze(
          this.#wire.take(2 /* Tag */, 3 /* Payload */, 2 /* Answer */, () => null) ?? null
        )
      };
    } catch (caught) {
      this.#stumbled(caught);
      return { ok: false, line: this.#line() };
    } finally {
      this.#wire.endRun();
    }
  }
};

// src/core/sandbox/inspector.ts
var Inspector = class {
  #wanted;
  #runs;
  #turned;
  #look;
  /** Asks between two runs. */
  #askNow;
  #detailed = /* @__PURE__ */ new Map();
  #looks;
  #asked = [];
  #cut = false;
  /** The run that reports in detail. */
  #run = null;
  /** The run going on, whether it reports or not. */
  #entry = null;
  constructor(wanted, { look, ask }) {
    this.#wanted = wanted;
    this.#runs = wanted.runs === "all" ? null : new Set(wanted.runs);
    this.#turned = new Set(wanted.turned.map(({ script, site }) => `${script}:${site}`));
    this.#look = look;
    this.#askNow = ask;
    this.#looks = wanted.moments.map(() => null);
  }
  get tracing() {
    return (this.#run === null ? 0 : 2 /* Details */) + (this.#wanted.asks ? 4 /* Asked */ : 0);
  }
  begins(entry) {
    this.#entry = entry;
    if (this.#runs !== null && !this.#runs.has(entry)) return;
    this.#run = { entry, details: [], cut: false };
    this.#detailed.set(entry, this.#run);
  }
  ends() {
    this.#entry = null;
    this.#run = null;
  }
  read(aspect2, value) {
    if (this.#run === null) return;
    this.#add({
      is: "read",
      part: aspect2.part.name,
      aspect: aspect2.name,
      value: forTape(value)
    });
  }
  said(aspect2, value, line2) {
    if (this.#run === null) return;
    this.#add({
      is: "said",
      part: aspect2.part.name,
      aspect: aspect2.name,
      value: forTape(value ?? null),
      ...value === void 0 ? { withdrawn: true } : {},
      line: line2
    });
  }
  asked(what, value) {
    if (this.#run !== null) this.#add({ is: "asked", what, value: forTape(value) });
  }
  stopped(part, says) {
    if (this.#run !== null) this.#add({ is: "stopped", part: part?.name ?? null, says });
  }
  taped(entry) {
    if (this.#run !== null) this.#add({ is: "entry", n: entry.n });
    this.#reached({ entry: entry.n, detail: null });
  }
  report(what, place, frame, value) {
    if (what === 12 /* Asked */ || what === 13 /* AskFailed */) {
      this.#answered(frame, value, what === 13 /* AskFailed */);
      return false;
    }
    if (this.#run === null || what === 11 /* Ask */) return false;
    const made = detailOf(what, place, frame, value);
    if (made === null) return false;
    const turned = what === 7 /* Condition */ && this.#turned.has(`${place.script}:${place.site}`);
    this.#add(turned ? { ...made, turned: true } : made);
    return turned;
  }
  /** All that was wanted. To be called when the session has come to its end. */
  end(answers2) {
    this.#reached({ entry: null, detail: null });
    return {
      answers: this.#wanted.answers ? answers2 : [],
      runs: [...this.#detailed.values()],
      looks: this.#looks,
      asked: this.#asked,
      cut: this.#cut
    };
  }
  #answered(id, value, failed) {
    if (this.#asked.length >= ASKED_IN_ALL) {
      this.#cut = true;
      return;
    }
    this.#asked.push({
      id,
      entry: this.#entry,
      detail: this.#run === null ? null : this.#run.details.length,
      value: failed ? null : value,
      failed: failed ? String(value) : null
    });
  }
  #add(detail) {
    const run2 = this.#run;
    if (run2.details.length >= DETAILS_PER_RUN) {
      run2.cut = true;
      return;
    }
    run2.details.push(detail);
    this.#reached({ entry: run2.entry, detail: run2.details.length - 1 });
  }
  #reached({ entry, detail }) {
    const { moments } = this.#wanted;
    if (moments.length === 0) return;
    moments.forEach((moment, i) => {
      if (moment.entry !== entry || moment.detail !== detail || this.#looks[i] !== null) return;
      this.#looks[i] = this.#look();
      if (this.#wanted.asks && this.#entry === null) this.#askNow();
    });
  }
};
function detailOf(what, place, frame, value) {
  const values = Array.isArray(value) ? value : [];
  switch (what) {
    case 1 /* Enter */:
      return { is: "enter", frame, values, ...place };
    case 2 /* Leave */:
      return { is: "leave", frame };
    case 3 /* Suspend */:
      return { is: "suspend", frame };
    case 4 /* Resume */:
      return { is: "resume", frame, value };
    case 5 /* Statement */:
      return { is: "statement", frame, values, ...place };
    case 6 /* Begin */:
      return { is: "begin", frame, ...place };
    case 7 /* Condition */:
      return { is: "condition", frame, value, ...place };
    case 8 /* Switch */:
      return { is: "switch", frame, value, ...place };
    case 9 /* Operand */:
      return { is: "operand", frame, value, ...place };
    case 10 /* Value */:
      return { is: "value", value, expression: frame, script: place.script, line: place.site };
    default:
      return null;
  }
}

// src/core/sandbox/sandbox.ts
var Sandbox = class {
  #machine;
  #host;
  #ready = null;
  #session = null;
  #askingTie = null;
  /** Boots a machine, or starts from the image of one. `wasm` has to be a module that nothing else uses. */
  constructor(wasm, options) {
    this.#machine = new QuickJS(wasm, {
      temporal: options.temporal,
      limits: options.limits ?? LIMITS,
      alive: options.alive ?? (() => void 0),
      image: options.image ?? null
    });
    this.#host = new Host(this.#machine, options.tell ?? null);
  }
  /** What other machines can start from. */
  get image() {
    return this.#machine.image;
  }
  /** Evaluates the behaviours' top levels; from here every opening starts. Throws MachineDied. */
  load(material, watched = false) {
    this.#session = null;
    this.#machine.booted.restore();
    const all = this.#host.load(material, watched);
    const isAsking = ({ behaviour }) => behaviour.name === ASKING;
    this.#askingTie = all.tied.find(isAsking)?.number ?? null;
    const loaded = { ...all, tied: all.tied.filter((tie) => !isAsking(tie)) };
    this.#ready = { material, loaded, snapshot: this.#machine.snapshot() };
    return listensOf(loaded);
  }
  /** Opens the form, with a mutant switched on where one is named. Throws MachineDied. */
  open(opening, mutant) {
    if (this.#ready === null) throw new Error("nothing is loaded");
    const { material, loaded, snapshot } = this.#ready;
    if (this.#session !== null) snapshot.restore();
    this.#host.restored();
    if (mutant !== void 0) this.#host.mutate(mutant);
    this.#session = new Session(material, loaded, this.#host, opening);
    return this.#session.open();
  }
  /** The mutants up to a number whose places the session has reached. */
  reached(most) {
    return this.#host.reached(most);
  }
  /** The id that the record of the open session is saved under, where it was not known when the session was opened. */
  identify(newId) {
    this.#session?.identify(newId);
  }
  /** Does a step. Throws MachineDied. */
  step(step) {
    if (this.#session === null) throw new Error("the form is not open");
    return this.#session.do(step);
  }
  /**
   * Runs a session again from its opening and says what is wanted of it. The material has to be compiled for details
   * (`language/compile.ts`). The session that was open is gone. Throws MachineDied.
   */
  inspect(opening, steps, wanted) {
    if (this.#ready === null) throw new Error("nothing is loaded");
    const { material, loaded, snapshot } = this.#ready;
    if (this.#session !== null) snapshot.restore();
    const host = this.#host;
    host.restored();
    const inspector = new Inspector(wanted, {
      look: () => session.look(),
      ask: () => this.#ask(session)
    });
    const session = new Session(material, loaded, host, opening, inspector);
    this.#session = session;
    host.reportTo(inspector);
    try {
      return inspector.end([session.open(), ...steps.map((step) => session.do(step))]);
    } finally {
      host.reportTo(null);
    }
  }
  /** Evaluates what the asking script asks, while no script runs. */
  #ask({ desk }) {
    if (this.#askingTie !== null)
      this.#host.run(this.#askingTie, ASKING_RUN, { is: "nothing" }, desk);
  }
  /** Bytes that scripts and what runs beside them hold. */
  get bytesUsed() {
    return this.#machine.bytesUsed;
  }
};
function listensOf({ tied }) {
  const of = (event) => [
    ...new Set(
      tied.flatMap(
        (one) => one.is === "handler" && one.event === event ? one.keys.map((key) => key.slice(event.length + 1)) : []
      )
    )
  ];
  return { input: of("input"), focus: of("focus"), blur: of("blur") };
}
var ASKING_RUN = -1;
function needsTemporal(material) {
  return [...material.scripts, ...material.modules, ...material.answering].some(
    (script) => script.code?.includes("Temporal") ?? false
  );
}

// tests/support/stage.ts
var machines = /* @__PURE__ */ new Map();
async function stageOf(material) {
  const temporal2 = needsTemporal(material);
  const machine = machines.get(temporal2) ?? new Sandbox(await startModule(), { temporal: temporal2 });
  machines.set(temporal2, machine);
  machine.load(material);
  return { open: (opening) => machine.open(opening), do: (step) => machine.step(step) };
}

// tests/conformance/finding/forms.ts
var option = (key) => ({ key, label: key[0].toUpperCase() + key.slice(1) });
var labelOf2 = (name2) => (name2[0].toUpperCase() + name2.slice(1)).replaceAll("_", " ");
var field2 = (kind, name2, more = {}) => ({ name: name2, label: labelOf2(name2), kind, whenHidden: "omit", ...more });
var undecided = { whenHidden: void 0 };
var text2 = (name2, more) => field2("text", name2, more);
var number5 = (name2, more) => field2("number", name2, more);
var money2 = (name2, more) => field2("money", name2, more);
var date3 = (name2, more) => field2("date", name2, more);
var yesNo2 = (name2, more) => field2("yes_no", name2, more);
var choice2 = (name2, keys, more = {}) => field2("choice", name2, { options: keys.split(" ").map(option), ...more });
var choices2 = (name2, keys, more = {}) => field2("choices", name2, { options: keys.split(" ").map(option), ...more });
var section = (name2, fields, more = {}) => ({
  name: name2,
  title: labelOf2(name2),
  fields,
  ...more
});
var button = (name2) => ({ name: name2, label: labelOf2(name2) });
function form(name2, sections, more = {}) {
  return {
    name: name2,
    title: labelOf2(name2),
    pages: [{ name: "all", title: "All", sections }],
    ...more
  };
}
var FORMS2 = {
  mooring: form(
    "mooring",
    [
      section("ship", [
        text2("vessel", { required: true }),
        choice2("kind", "tanker cargo passenger tug"),
        number5("length", { min: 5, max: 400, decimals: 1 }),
        number5("draught", { min: 0, max: 30, decimals: 1 })
      ]),
      section("pilotage", [
        choice2("pilot", "none own harbour"),
        text2("licence"),
        text2("pilot_name")
      ]),
      section("stay", [date3("arrival"), date3("departure"), number5("nights"), text2("remarks")])
    ],
    { buttons: [button("check"), button("clear_stay")] }
  ),
  works: form(
    "works",
    [
      section("job", [
        choice2("works_kind", "hot diving crane"),
        text2("contractor", { required: true }),
        number5("hours", { min: 0, max: 72 }),
        yesNo2("at_night"),
        text2("leader")
      ]),
      section("safety", [text2("fire_watch"), number5("divers"), text2("standby_boat")]),
      section("decision", [
        choice2("status", "draft granted refused"),
        text2("reason"),
        text2("granted_by"),
        date3("valid_until")
      ])
    ],
    { buttons: [button("grant")] }
  ),
  manifest: form("manifest", [
    section("head", [
      text2("consignee"),
      yesNo2("insured"),
      choices2("hazards", "fire poison pressure rust")
    ]),
    section("list", [
      field2("rows", "goods", {
        fields: [
          text2("what"),
          choice2("packing", "drum crate loose"),
          number5("packages", { min: 0, max: 900 }),
          number5("weight", { min: 0 }),
          money2("worth", { min: 0 }),
          yesNo2("dangerous"),
          text2("un_number")
        ]
      }),
      number5("total", { locked: true }),
      money2("total_worth", { locked: true }),
      number5("lines", { locked: true }),
      text2("note")
    ])
  ]),
  dues: form(
    "dues",
    [
      section("stay", [
        field2("reference", "berth", { table: "berths" }),
        number5("days", { min: 0, max: 365 }),
        number5("tonnage", { min: 0 }),
        yesNo2("exempt"),
        number5("discount", { min: 0, max: 100 })
      ]),
      section("sums", [money2("rate", { locked: true }), money2("amount", { locked: true })]),
      section("payment", [
        choice2("payer", "agent owner charterer"),
        text2("account"),
        text2("reference"),
        money2("deposit")
      ])
    ],
    { buttons: [button("recalculate")] }
  ),
  register: form(
    "register",
    [
      section("ship", [
        text2("imo", { maxLength: 10 }),
        text2("ship"),
        number5("tonnage"),
        text2("flag"),
        yesNo2("by_hand")
      ]),
      section("call", [date3("day"), number5("tide"), text2("note"), text2("owner")])
    ],
    { buttons: [button("look_up")] }
  ),
  clearance: form(
    "clearance",
    [
      section("request", [
        text2("agent_name"),
        choice2("purpose", "bunkers repair crew_change lay_up"),
        date3("from"),
        date3("to"),
        number5("crew", { min: 0, max: 60 })
      ]),
      section("office", [
        choice2("state", "open checked closed", { default: "open" }),
        text2("checked_by"),
        text2("remark"),
        yesNo2("priority"),
        money2("fee")
      ])
    ],
    {
      launch: [
        { name: "visit", kind: "text" },
        { name: "purpose", kind: "text" }
      ]
    }
  ),
  /** Its definition says nothing about what becomes of values off screen. */
  slip: form("slip", [
    section("boat", [
      text2("name", undecided),
      choice2("use", "hire private club", undecided),
      text2("club", undecided),
      yesNo2("insured", undecided),
      text2("policy", undecided)
    ]),
    section("store", [choice2("winter", "afloat ashore", undecided), text2("shed", undecided)])
  ]),
  inspection: form("inspection", [], {
    pages: [
      {
        name: "general",
        title: "General",
        sections: [
          section("about", [
            text2("vessel"),
            choice2("reason", "yearly complaint damage"),
            yesNo2("follow_up")
          ])
        ]
      },
      {
        name: "hull",
        title: "Hull",
        sections: [
          section("plating", [
            number5("thickness", { min: 0, max: 60, decimals: 1 }),
            choice2("condition", "good worn bad"),
            text2("where")
          ]),
          section("repair", [text2("yard"), date3("due")])
        ]
      },
      {
        name: "close",
        title: "Close",
        sections: [section("result", [yesNo2("passed"), text2("reasons"), text2("signature")])]
      }
    ]
  })
};
var TABLES = [
  {
    name: "berths",
    title: "Berths",
    key: "code",
    label: "name",
    columns: [
      { name: "code", kind: "text" },
      { name: "name", kind: "text" },
      { name: "depth", kind: "number" },
      { name: "rate", kind: "number" },
      { name: "covered", kind: "yes_no" },
      { name: "closed_on", kind: "text" }
    ],
    rows: [
      { code: "n1", name: "North 1", depth: 12, rate: 2.5, covered: false, closed_on: null },
      { code: "n2", name: "North 2", depth: 9, rate: 2, covered: false, closed_on: "monday" },
      { code: "w1", name: "West 1", depth: 6, rate: 1.75, covered: true, closed_on: null },
      { code: "w2", name: "West 2", depth: 4.5, rate: 1.1, covered: true, closed_on: "sunday" }
    ]
  },
  {
    name: "ships",
    title: "Ships",
    key: "imo",
    label: "name",
    columns: [
      { name: "imo", kind: "text" },
      { name: "name", kind: "text" },
      { name: "tonnage", kind: "number" },
      { name: "flag", kind: "text" }
    ],
    rows: [
      { imo: "9000012", name: "Anna Berg", tonnage: 4200, flag: "Norland" },
      { imo: "9000024", name: "Corvin", tonnage: 880, flag: "Ostmark" },
      { imo: "9000036", name: "Delia", tonnage: 15300, flag: "Norland" }
    ]
  }
];
var SERVICES = [
  {
    name: "ships",
    title: "Ship register",
    delay: 300,
    functions: {
      find: {
        parameters: [{ name: "imo", kind: "text" }],
        answers: { from: "table", table: "ships", where: { imo: "imo" } }
      }
    }
  }
];
var PEOPLE = [
  { key: "ida", name: "Ida Lund", roles: ["agent"] },
  { key: "per", name: "Per Holm", roles: ["officer"] },
  { key: "eva", name: "Eva Strand", roles: ["officer", "master"] },
  { key: "jon", name: "Jon Dahl", roles: ["agent"] }
];
var RECORDS2 = {
  mooring: [
    { id: "m1", values: { vessel: "Corvin", kind: "tanker", length: 180, pilot: "harbour" } },
    {
      id: "m2",
      values: { vessel: "Delia", kind: "tug", length: 30, pilot: "own", licence: "A12" }
    }
  ],
  works: [
    {
      id: "w1",
      values: { works_kind: "hot", contractor: "Weld Ltd", fire_watch: "Two men", status: "draft" }
    },
    {
      id: "w2",
      values: {
        works_kind: "diving",
        contractor: "Deep",
        divers: 2,
        status: "granted",
        granted_by: "Eva Strand"
      }
    }
  ],
  manifest: [
    {
      id: "g1",
      values: {
        consignee: "Bay Stores",
        goods: [
          {
            what: "Paint",
            packing: "drum",
            packages: 4,
            weight: 80,
            worth: 120,
            dangerous: true,
            un_number: "1263"
          }
        ]
      }
    }
  ],
  dues: [
    { id: "d1", values: { berth: "n1", days: 3, tonnage: 4200, payer: "agent", account: "A-100" } },
    { id: "d2", values: { berth: "w1", days: 1, tonnage: 880, payer: "owner", exempt: true } }
  ],
  clearance: [
    {
      id: "c1",
      values: {
        agent_name: "Ida Lund",
        purpose: "repair",
        from: "2031-05-10",
        to: "2031-05-14",
        crew: 12,
        state: "open"
      }
    },
    {
      id: "c2",
      values: {
        agent_name: "Jon Dahl",
        purpose: "bunkers",
        from: "2031-05-03",
        to: "2031-05-03",
        crew: 20,
        state: "closed",
        checked_by: "Per Holm"
      }
    }
  ],
  inspection: [
    {
      id: "i1",
      values: {
        vessel: "Anna Berg",
        reason: "damage",
        thickness: 9.5,
        condition: "bad",
        where: "Bow",
        reasons: "Thin plates"
      }
    }
  ]
};

// tests/conformance/finding/fault.ts
function faultsOf(group, shows = "use") {
  return (about, form2, faulty, ...mend) => ({
    group,
    about,
    form: form2,
    faulty: faulty.trim(),
    mend,
    shows
  });
}
function mendedOf({ about, faulty, mend }) {
  return mend.reduce((text3, [from, to]) => {
    if (!text3.includes(from)) throw new Error(`${about}: nothing to mend at ${from}`);
    return text3.replace(from, () => to);
  }, faulty);
}

// tests/conformance/finding/faults-in-source.ts
var conditions = faultsOf("conditions and keys", "source");
var sums = faultsOf("arithmetic", "source");
var days = faultsOf("days and months", "source");
var untouched = faultsOf("untouched for no", "source");
var faultsInSource = [
  conditions(
    "a label is compared",
    "mooring",
    `keep(() => { fields.licence.shown = (fields.pilot.value as string) === "Own"; });`,
    ['"Own"', '"own"']
  ),
  conditions(
    "a key of an earlier list",
    "works",
    `
const NEEDS = ["hot_work", "diving"];
keep(() => { fields.leader.required = NEEDS.includes(fields.works_kind.value ?? ""); });`,
    ['"hot_work"', '"hot"']
  ),
  conditions(
    "labels as the keys of a lookup",
    "works",
    `
const HINTS: Record<string, string> = { Hot: "A fire watch.", Diving: "Two divers.", Crane: "A banksman." };
keep(() => { fields.leader.hint = HINTS[fields.works_kind.value ?? ""] ?? null; });`,
    ["Hot:", "hot:"],
    ["Diving:", "diving:"],
    ["Crane:", "crane:"]
  ),
  conditions(
    "one key of a lookup is no option",
    "dues",
    `
const TERMS: Record<string, number> = { agent: 14, owner: 30, charter: 7 };
keep(() => { fields.account.hint = fields.payer.value === null ? null : "Within " + (TERMS[fields.payer.value] ?? 30) + " days"; });`,
    ["charter:", "charterer:"]
  ),
  conditions(
    "a role that nobody has",
    "clearance",
    `keep(() => { sections.office.shown = form.person.roles.includes("officers" as never); });`,
    ['"officers" as never', '"officer"']
  ),
  conditions(
    "a cell\u2019s text that no row of the table has",
    "dues",
    `keep(() => { fields.days.hint = fields.berth.row?.closed_on === "Monday" ? "Closed on Mondays." : null; });`,
    ['"Monday"', '"monday"']
  ),
  conditions(
    "above a limit that the definition sets",
    "works",
    `keep(() => { fields.leader.required = (fields.hours.value ?? 0) > 80; });`,
    ["> 80", "> 24"]
  ),
  conditions(
    "a branch behind a return with the same condition",
    "dues",
    `
keep(() => {
  if ((fields.days.value ?? 0) > 5) { fields.days.hint = "A long stay."; return; }
  if ((fields.days.value ?? 0) > 30) { fields.days.hint = "Ask the master."; return; }
  fields.days.hint = null;
});`,
    [
      'if ((fields.days.value ?? 0) > 5) { fields.days.hint = "A long stay."; return; }\n  if ((fields.days.value ?? 0) > 30) { fields.days.hint = "Ask the master."; return; }',
      'if ((fields.days.value ?? 0) > 30) { fields.days.hint = "Ask the master."; return; }\n  if ((fields.days.value ?? 0) > 5) { fields.days.hint = "A long stay."; return; }'
    ]
  ),
  conditions(
    "two bounds that exclude each other",
    "mooring",
    `keep(() => { fields.remarks.required = (fields.length.value ?? 0) > 200 && (fields.length.value ?? 0) < 100; });`,
    ["< 100", "< 300"]
  ),
  conditions(
    "or where and was meant",
    "mooring",
    `keep(() => { fields.pilot_name.shown = fields.pilot.value !== "none" || fields.pilot.value !== null; });`,
    ["||", "&&"]
  ),
  conditions(
    "an option compared with another spelling in a list",
    "manifest",
    `keep(() => { fields.note.required = fields.hazards.value.some((hazard) => (["fire", "toxic"] as string[]).includes(hazard)); });`,
    ['"toxic"', '"poison"']
  ),
  conditions(
    "a launch name that the form does not have",
    "clearance",
    `on.load(() => { if (form.isNew && form.launch.purpouse === "repair") fields.purpose.value = "repair"; });`,
    ["form.launch.purpouse", "form.launch.purpose"]
  ),
  sums(
    "a number added to a text",
    "dues",
    `keep(() => { fields.reference.value = "D" + (fields.days.value ?? 0) + 1; });`,
    ['"D" + (fields.days.value ?? 0) + 1', '"D" + ((fields.days.value ?? 0) + 1)']
  ),
  sums(
    "money without rounding is compared",
    "dues",
    `keep(() => { fields.deposit.required = (fields.amount.value ?? 0) * 1.1 === 110; });`,
    [
      "(fields.amount.value ?? 0) * 1.1 === 110",
      "round((fields.amount.value ?? 0) * 1.1, 2) === 110"
    ]
  ),
  sums(
    "rounding by a hundred",
    "dues",
    `keep(() => { fields.amount.value = Math.round((fields.days.value ?? 0) * 1.005 * 100) / 100; });`,
    [
      "Math.round((fields.days.value ?? 0) * 1.005 * 100) / 100",
      "round((fields.days.value ?? 0) * 1.005, 2)"
    ]
  ),
  sums(
    "an empty number counts as free",
    "dues",
    `keep(() => { fields.amount.hint = (fields.tonnage.value ?? 0) < 100 ? "Free below 100 tons." : null; });`,
    [
      "(fields.tonnage.value ?? 0) < 100",
      "fields.tonnage.value !== null && fields.tonnage.value < 100"
    ]
  ),
  sums(
    "a text from a field joined to a number",
    "works",
    `keep(() => { fields.reason.hint = "Hour " + (fields.hours.value ?? 0) + 24; });`,
    ['"Hour " + (fields.hours.value ?? 0) + 24', '"Hour " + ((fields.hours.value ?? 0) + 24)']
  ),
  sums(
    "money in doubles ends in a hint",
    "manifest",
    `keep(() => { fields.note.hint = fields.total_worth.value === null ? null : "Insured at " + fields.total_worth.value * 1.1; });`,
    ["fields.total_worth.value * 1.1", "round(fields.total_worth.value * 1.1, 2)"]
  ),
  days(
    "a month of thirty days",
    "clearance",
    `
const DAY = 24 * 60 * 60 * 1000;
keep(() => { fields.fee.required = fields.from.value !== null && fields.to.value !== null && (Date.parse(fields.to.value) - Date.parse(fields.from.value)) / DAY / 30 > 1; });`,
    [
      "(Date.parse(fields.to.value) - Date.parse(fields.from.value)) / DAY / 30 > 1",
      "Temporal.PlainDate.compare(Temporal.PlainDate.from(fields.to.value), Temporal.PlainDate.from(fields.from.value).add({ months: 1 })) > 0"
    ]
  ),
  days(
    "months from zero",
    "clearance",
    `keep(() => { fields.remark.hint = fields.from.value !== null && new Date(fields.from.value).getMonth() === 12 ? "The office is closed at the end of December." : null; });`,
    [
      "new Date(fields.from.value).getMonth() === 12",
      "Temporal.PlainDate.from(fields.from.value).month === 12"
    ]
  ),
  days(
    "a year of 365 days",
    "works",
    `
const DAY = 86_400_000;
on.change(fields.works_kind, () => { fields.valid_until.value = new Date(Date.parse("2031-05-02") + 365 * DAY).toISOString().slice(0, 10); });`,
    [
      'new Date(Date.parse("2031-05-02") + 365 * DAY).toISOString().slice(0, 10)',
      'Temporal.PlainDate.from("2031-05-02").add({ years: 1 }).toString()'
    ]
  ),
  days(
    "the local day of a date that has none",
    "mooring",
    `keep(() => { fields.remarks.hint = fields.arrival.value !== null && new Date(fields.arrival.value).getDay() === 0 ? "No linesmen on Sundays." : null; });`,
    [
      "new Date(fields.arrival.value).getDay() === 0",
      "Temporal.PlainDate.from(fields.arrival.value).dayOfWeek === 7"
    ]
  ),
  untouched(
    "untouched is taken for no",
    "dues",
    `keep(() => { fields.account.required = fields.exempt.value === false; });`,
    ["fields.exempt.value === false", "fields.exempt.value !== true"]
  ),
  untouched(
    "not insured is what nobody was asked",
    "manifest",
    `keep(() => { fields.note.required = !fields.insured.value; });`,
    ["!fields.insured.value", "fields.insured.value === false"]
  ),
  untouched(
    "a follow-up that was not answered hides the repair",
    "inspection",
    `keep(() => { sections.repair.shown = fields.passed.value === false; });`,
    ["fields.passed.value === false", "fields.passed.value !== true"]
  )
];

// tests/conformance/finding/faults-of-order.ts
var order = faultsOf("order");
var answers = faultsOf("answers");
var people = faultsOf("people and records");
var faultsOfOrder = [
  order(
    "a field asks another only when it changes itself",
    "works",
    `
on.change(fields.at_night, ({ value }) => { fields.leader.required = value === true && fields.works_kind.value === "hot"; });
on.load(() => { fields.leader.required = fields.at_night.value === true && fields.works_kind.value === "hot"; });`,
    [
      "on.change(fields.at_night, ({ value }) => { fields.leader.required = value === true",
      "on.change([fields.at_night, fields.works_kind], () => { fields.leader.required = fields.at_night.value === true"
    ]
  ),
  order(
    "two handlers say the same aspect of one field",
    "mooring",
    `
const byKind = () => { fields.licence.required = fields.kind.value === "tanker"; };
const byPilot = () => { fields.licence.required = fields.pilot.value === "own"; };
on.load(() => { byKind(); byPilot(); });
on.change(fields.kind, byKind);
on.change(fields.pilot, byPilot);`,
    [
      'const byKind = () => { fields.licence.required = fields.kind.value === "tanker"; };\nconst byPilot = () => { fields.licence.required = fields.pilot.value === "own"; };',
      'const byKind = () => { fields.licence.required = fields.kind.value === "tanker" || fields.pilot.value === "own"; };\nconst byPilot = byKind;'
    ]
  ),
  order(
    "the draught is checked when it is entered, not when the berth is",
    "dues",
    `
const check = () => { fields.tonnage.warning = (fields.tonnage.value ?? 0) > 1000 && fields.berth.row?.covered === true ? "Too large for a covered berth." : null; };
on.load(check);
on.change(fields.tonnage, check);`,
    ["on.change(fields.tonnage, check);", "on.change([fields.tonnage, fields.berth], check);"]
  ),
  order(
    "the latest of two locks wins",
    "clearance",
    `
on.change(fields.state, ({ value }) => { fields.fee.locked = value === "closed"; });
on.change(fields.priority, ({ value }) => { fields.fee.locked = value !== true; });
on.load(() => { fields.fee.locked = fields.state.value === "closed" || fields.priority.value !== true; });`,
    [
      'fields.fee.locked = value === "closed"; });\non.change(fields.priority, ({ value }) => { fields.fee.locked = value !== true; });',
      'fields.fee.locked = value === "closed" || fields.priority.value !== true; });\non.change(fields.priority, ({ value }) => { fields.fee.locked = value !== true || fields.state.value === "closed"; });'
    ]
  ),
  order(
    "one handler hides what the other has shown",
    "works",
    `
const kinds = () => { fields.divers.shown = fields.works_kind.value === "diving"; fields.standby_boat.shown = fields.works_kind.value === "diving"; };
const night = () => { fields.standby_boat.shown = fields.at_night.value === true; };
on.load(() => { kinds(); night(); });
on.change(fields.works_kind, kinds);
on.change(fields.at_night, night);`,
    [
      'fields.standby_boat.shown = fields.works_kind.value === "diving"; };\nconst night = () => { fields.standby_boat.shown = fields.at_night.value === true; };',
      'night(); };\nconst night = () => { fields.standby_boat.shown = fields.works_kind.value === "diving" || fields.at_night.value === true; };'
    ]
  ),
  order(
    "the amount is made before the rate",
    "dues",
    `
on.change([fields.tonnage, fields.days], () => { fields.amount.value = (fields.rate.value ?? 0) * (fields.days.value ?? 0); });
on.change(fields.tonnage, () => { fields.rate.value = (fields.tonnage.value ?? 0) > 1000 ? 20 : 10; });`,
    [
      "on.change([fields.tonnage, fields.days], () => {",
      "on.change([fields.rate, fields.days], () => {"
    ]
  ),
  order(
    "only the first choice sets the end",
    "clearance",
    `
on.change(fields.from, ({ value }) => { fields.to.hint = fields.crew.value !== null && fields.crew.value > 30 ? "At least two days." : null; });
on.load(() => { fields.to.hint = fields.crew.value !== null && fields.crew.value > 30 ? "At least two days." : null; });`,
    ["on.change(fields.from, ({ value }) => {", "on.change(fields.crew, ({ value }) => {"]
  ),
  order(
    "a rule steers what a handler also steers",
    "mooring",
    `
keep("remarks", () => { if (fields.kind.value === "tug") fields.remarks.required = true; else fields.remarks.required = false; });
on.change(fields.pilot, ({ value }) => { fields.remarks.required = value === "none"; });`,
    [
      'on.change(fields.pilot, ({ value }) => { fields.remarks.required = value === "none"; });',
      ""
    ],
    ['fields.kind.value === "tug"', 'fields.kind.value === "tug" || fields.pilot.value === "none"']
  ),
  order(
    "a field asked for by the other order of two dates",
    "clearance",
    `
on.change(fields.to, () => { fields.to.problem = fields.from.value !== null && fields.to.value !== null && fields.to.value < fields.from.value ? "Ends before it begins." : null; });
on.load(() => { fields.to.problem = fields.from.value !== null && fields.to.value !== null && fields.to.value < fields.from.value ? "Ends before it begins." : null; });`,
    ["on.change(fields.to, () => {", "on.change([fields.from, fields.to], () => {"]
  ),
  answers(
    "the ship of the former number stays when the new one is not found",
    "register",
    `
on.change(fields.imo, async ({ value }) => {
  let found: { readonly name: string } | null = null;
  try { if (value !== null) found = await services.ships.find({ imo: value }); } catch { found = null; }
  if (value === null || found !== null) fields.ship.value = found?.name ?? null;
});
keep(() => { fields.ship.locked = true; });`,
    ["if (value === null || found !== null) ", ""]
  ),
  answers(
    "two looks at once, the later answer wins",
    "register",
    `
on.change(fields.imo, async ({ value }) => {
  let tonnage: number | null = null;
  try { if (value !== null) tonnage = (await services.ships.find({ imo: value }))?.tonnage ?? null; } catch { tonnage = null; }
  fields.tonnage.value = tonnage;
}, { overlap: "all" });
keep(() => { fields.tonnage.locked = true; });`,
    [', { overlap: "all" }', ""]
  ),
  answers(
    "the lock of waiting is not taken off when the register is down",
    "register",
    `
on.click(buttons.look_up, async () => {
  fields.imo.locked = true;
  const found = await services.ships.find({ imo: fields.imo.value ?? "" });
  fields.ship.value = found?.name ?? null;
  fields.imo.locked = false;
});`,
    [
      'const found = await services.ships.find({ imo: fields.imo.value ?? "" });\n  fields.ship.value = found?.name ?? null;\n  fields.imo.locked = false;',
      'try {\n    const found = await services.ships.find({ imo: fields.imo.value ?? "" });\n    fields.ship.value = found?.name ?? null;\n  } catch { fields.ship.hint = "The register does not answer."; }\n  fields.imo.locked = false;'
    ]
  ),
  answers(
    "a hint says that it is looking, for ever",
    "register",
    `
on.change(fields.imo, async ({ value }) => {
  fields.ship.value = null;
  if (value === null) { fields.imo.hint = null; return; }
  fields.imo.hint = "Looking it up \u2026";
  const found = await services.ships.find({ imo: value });
  fields.ship.value = found?.name ?? null;
  fields.imo.hint = null;
});
keep(() => { fields.ship.locked = true; });`,
    [
      "const found = await services.ships.find({ imo: value });\n  fields.ship.value = found?.name ?? null;\n  fields.imo.hint = null;",
      "try { fields.ship.value = (await services.ships.find({ imo: value }))?.name ?? null; } catch { fields.ship.value = null; }\n  fields.imo.hint = null;"
    ]
  ),
  answers(
    "the answer writes over what was typed meanwhile",
    "register",
    `
on.change(fields.imo, async ({ value }) => {
  if (value === null) return;
  const found = await services.ships.find({ imo: value });
  if (found !== null) fields.owner.value = found.flag;
});`,
    ["if (found !== null)", "if (found !== null && fields.owner.empty)"]
  ),
  answers(
    "decided before the call",
    "register",
    `
on.change(fields.imo, async ({ value }) => {
  const byHand = fields.by_hand.value === true;
  let flag: string | null = null;
  try { if (value !== null) flag = (await services.ships.find({ imo: value }))?.flag ?? null; } catch { flag = null; }
  if (!byHand) fields.flag.value = flag;
});
keep(() => { fields.flag.locked = fields.by_hand.value !== true; });`,
    ["  const byHand = fields.by_hand.value === true;\n", ""],
    ["if (!byHand)", "if (fields.by_hand.value !== true)"]
  ),
  answers(
    "a ship that is not found is told in the words of the language",
    "register",
    `
keep(() => { fields.ship.locked = true; });
const look = async () => {
  const { value } = fields.imo;
  fields.imo.warning = null;
  if (value === null) { fields.ship.value = null; return; }
  try {
    const found = await services.ships.find({ imo: value });
    fields.ship.value = found?.name ?? null;
    fields.imo.warning = found === null ? "Found: " + (found as { name: string } | null)?.name : null;
  } catch { fields.ship.value = null; fields.imo.warning = "The register does not answer."; }
};
on.load(look);
on.change(fields.imo, look);`,
    ['"Found: " + (found as { name: string } | null)?.name', '"No such ship."']
  ),
  people(
    "the name of the one master stands in the code",
    "clearance",
    `
keep(() => { sections.office.locked = form.person.key !== "eva"; });`,
    ['form.person.key !== "eva"', '!form.person.roles.includes("master")']
  ),
  people(
    "a lock for a name",
    "works",
    `
on.load(() => { fields.status.locked = form.person.name !== "Per Holm"; });`,
    ['form.person.name !== "Per Holm"', '!form.person.roles.includes("officer")']
  ),
  people(
    "what the former record showed stays for the next one",
    "works",
    `
let shown = 0;
on.load(() => { shown += 1; fields.contractor.hint = shown > 1 ? "Compare with the last one." : null; });`,
    ["let shown = 0;\n", ""],
    ["shown += 1; fields.contractor.hint = shown > 1 ?", "fields.contractor.hint = form.isNew ?"]
  ),
  people(
    "a list at the top of the file remembers kinds",
    "mooring",
    `
const seen: string[] = [];
on.load(() => { if (fields.kind.value !== null) seen.push(fields.kind.value); });
keep(() => { fields.kind.hint = fields.kind.value !== null && seen.includes("tanker") ? "Tankers need a tug." : null; });`,
    ["const seen: string[] = [];\n", ""],
    ["on.load(() => { if (fields.kind.value !== null) seen.push(fields.kind.value); });\n", ""],
    ['fields.kind.value !== null && seen.includes("tanker")', 'fields.kind.value === "tanker"']
  ),
  people(
    "the first role decides for somebody with two",
    "clearance",
    `
keep(() => { fields.state.locked = form.person.roles[0] !== "master"; fields.state.hint = form.person.roles.includes("master") && fields.state.locked ? null : "Set by the master."; });
on.submit((event) => { if (form.person.roles.includes("master") && fields.state.value === "open") event.stop("Close it.", fields.state); });`,
    ['form.person.roles[0] !== "master"', '!form.person.roles.includes("master")']
  ),
  people(
    "today is the day of the machine and not of the person",
    "clearance",
    `
on.load(() => { if (form.isNew) fields.from.value = new Date().toISOString().slice(0, 10); });`,
    ["new Date().toISOString().slice(0, 10)", "Temporal.Now.plainDateISO().toString()"]
  ),
  people(
    "a random reference at each opening",
    "clearance",
    `
on.load(() => { fields.remark.value = "Ref " + Math.floor(Math.random() * 1000); });`,
    ["fields.remark.value", "if (form.isNew) fields.remark.value"]
  )
];

// tests/conformance/finding/faults-of-values.ts
var empty = faultsOf("empty and wrong values");
var rows2 = faultsOf("rows");
var cycles = faultsOf("no rest");
var stale = faultsOf("stale values");
var saved2 = faultsOf("saved and launched");
var faultsOfValues = [
  empty(
    "a method of an empty text",
    "clearance",
    `
const check = () => { fields.remark.hint = fields.agent_name.value!.trim().length < 3 ? "Give the agent's full name." : null; };
on.load(() => { if (!fields.agent_name.empty) check(); });
on.change(fields.agent_name, check);`,
    [
      "fields.agent_name.value!.trim().length < 3",
      "fields.agent_name.value !== null && fields.agent_name.value.trim().length < 3"
    ]
  ),
  empty(
    "the row of a reference that is empty",
    "dues",
    `
on.change(fields.berth, () => { fields.rate.value = fields.berth.row!.rate; });`,
    ["fields.berth.row!.rate", "fields.berth.row?.rate ?? null"]
  ),
  empty(
    "a division by an empty number shows at the field",
    "manifest",
    `
keep(() => { fields.note.hint = \`\${fields.total.value! / fields.goods.count} kg a line\`; });
keep(() => { fields.total.value = fields.goods.sum("weight"); });`,
    ["fields.note.hint = `", "fields.note.hint = fields.goods.count === 0 ? null : `"]
  ),
  empty(
    "null in a sentence",
    "mooring",
    `
keep(() => { fields.remarks.hint = "Berth for " + fields.vessel.value + " asked for."; });`,
    [
      '"Berth for " + fields.vessel.value + " asked for."',
      'fields.vessel.value === null ? null : "Berth for " + fields.vessel.value + " asked for."'
    ]
  ),
  empty(
    "not a number in a text",
    "works",
    `
keep(() => { fields.reason.hint = "Until hour " + (Number(fields.leader.value) + (fields.hours.value ?? 0)); });`,
    [
      '"Until hour " + (Number(fields.leader.value) + (fields.hours.value ?? 0))',
      'fields.hours.value === null ? null : "For " + fields.hours.value + " hours"'
    ]
  ),
  empty(
    "a text beyond its length is written",
    "register",
    `
on.change(fields.ship, ({ value }) => { if (value !== null) fields.imo.value = value; });`,
    ["fields.imo.value = value;", "fields.note.value = value;"]
  ),
  empty(
    "a list\u2019s first entry where there may be none",
    "manifest",
    `
keep(() => { fields.note.hint = fields.goods.rows[0]!.fields.what.value; });`,
    ["fields.goods.rows[0]!.fields", "fields.goods.rows.at(0)?.fields"],
    [".what.value;", ".what.value ?? null;"]
  ),
  empty(
    "an option that the field does not have is written",
    "clearance",
    `
on.change(fields.purpose, ({ value }) => { if (value === "lay_up") fields.state.value = "waiting" as never; });`,
    ['"waiting" as never', '"checked"']
  ),
  empty(
    "a decimal tail in a message",
    "dues",
    `
keep(() => { fields.reference.hint = fields.days.value === null ? null : "Per day: " + (100.1 * fields.days.value) / 3; });`,
    [
      '"Per day: " + (100.1 * fields.days.value) / 3',
      '"Per day: " + round((100.1 * fields.days.value) / 3, 2)'
    ]
  ),
  rows2(
    "the total is added to at every change",
    "manifest",
    `
on.change(fields.goods.each.weight, ({ value }) => { fields.total.value = (fields.total.value ?? 0) + (value ?? 0); });`,
    [
      "on.change(fields.goods.each.weight, ({ value }) => { fields.total.value = (fields.total.value ?? 0) + (value ?? 0); });",
      'keep(() => { fields.total.value = fields.goods.sum("weight"); });'
    ]
  ),
  rows2(
    "the total forgets rows that go",
    "manifest",
    `
const sum = () => { fields.total.value = fields.goods.sum("weight"); };
on.load(sum);
on.rowAdded(fields.goods, sum);
on.change(fields.goods.each.weight, sum);`,
    [
      "on.rowAdded(fields.goods, sum);",
      "on.rowAdded(fields.goods, sum);\non.rowRemoved(fields.goods, sum);"
    ]
  ),
  rows2(
    "the count is of what it was before",
    "manifest",
    `
on.rowAdded(fields.goods, () => { fields.lines.value = fields.goods.count; });
on.rowRemoved(fields.goods, () => { fields.lines.value = (fields.lines.value ?? 0); });
on.load(() => { fields.lines.value = fields.goods.count; });`,
    ["(fields.lines.value ?? 0)", "fields.goods.count"]
  ),
  rows2(
    "only the first row is looked at",
    "manifest",
    `
keep(() => { fields.note.required = fields.goods.value[0]?.dangerous === true; });`,
    [
      "fields.goods.value[0]?.dangerous === true",
      "fields.goods.value.some((row) => row.dangerous === true)"
    ]
  ),
  rows2(
    "the last row decides",
    "manifest",
    `
keep(() => {
  fields.consignee.required = false;
  for (const { worth } of fields.goods.value) fields.consignee.required = (worth ?? 0) > 1000;
});`,
    [
      "fields.consignee.required = (worth ?? 0) > 1000;",
      "if ((worth ?? 0) > 1000) fields.consignee.required = true;"
    ]
  ),
  rows2(
    "a row writes into its neighbour",
    "manifest",
    `
on.change(fields.goods.each.packing, ({ row, value }) => {
  const first = fields.goods.rows[0]!;
  first.fields.packages.locked = value === "loose";
});
on.load(() => { for (const row of fields.goods.rows) row.fields.packages.locked = row.fields.packing.value === "loose"; });
on.rowAdded(fields.goods, ({ row }) => { row.fields.packages.locked = row.fields.packing.value === "loose"; });`,
    ["const first = fields.goods.rows[0]!;\n  first.", "row."]
  ),
  rows2(
    "a text piles up with each danger",
    "manifest",
    `
keep("dangers", () => {
  fields.note.locked = true;
  for (const { what, dangerous } of fields.goods.value) if (dangerous === true) fields.note.value = (fields.note.value ?? "") + " " + what;
});`,
    [
      'for (const { what, dangerous } of fields.goods.value) if (dangerous === true) fields.note.value = (fields.note.value ?? "") + " " + what;',
      'fields.note.value = fields.goods.value.filter(({ dangerous }) => dangerous === true).map(({ what }) => what ?? "?").join(" ") || null;'
    ]
  ),
  rows2(
    "a submission stops at the first row alone",
    "manifest",
    `
on.submit((event) => {
  const row = fields.goods.rows.at(0);
  if (row !== undefined && row.fields.dangerous.value === true && row.fields.un_number.empty) event.stop("Which UN number?", row.fields.un_number);
});`,
    [
      "const row = fields.goods.rows.at(0);\n  if (row !== undefined && row",
      "for (const row of fields.goods.rows) if (row"
    ]
  ),
  rows2(
    "ties are made for each row that comes",
    "manifest",
    `
on.rowAdded(fields.goods, () => {
  on.change(fields.goods.each.packages, ({ value }) => { fields.lines.value = (fields.lines.value ?? 0) + (value === null ? 0 : 1); });
});`,
    [
      "on.rowAdded(fields.goods, () => {\n  on.change(fields.goods.each.packages, ({ value }) => { fields.lines.value = (fields.lines.value ?? 0) + (value === null ? 0 : 1); });\n});",
      "keep(() => { fields.lines.value = fields.goods.value.filter(({ packages }) => packages !== null).length; });"
    ]
  ),
  cycles(
    "two handlers set each other\u2019s field",
    "dues",
    `
on.change(fields.days, ({ value }) => { fields.tonnage.value = (value ?? 0) + 1; });
on.change(fields.tonnage, ({ value }) => { fields.days.value = (value ?? 0) + 1; });`,
    ["on.change(fields.tonnage, ({ value }) => { fields.days.value = (value ?? 0) + 1; });", ""],
    ["(value ?? 0) + 1", "value === null ? null : value + 1"]
  ),
  cycles(
    "a row is added for each row that is added",
    "manifest",
    `
on.rowAdded(fields.goods, ({ row }) => { if (row.fields.dangerous.value === true) fields.goods.add({ what: "Papers", dangerous: true }); });`,
    ["dangerous: true });", "dangerous: false });"]
  ),
  cycles(
    "swapping dates for ever",
    "clearance",
    `
on.change([fields.from, fields.to], () => {
  const { from, to } = fields;
  if (from.value !== null && to.value !== null && from.value !== to.value) { const earlier = from.value; from.value = to.value; to.value = earlier; }
});`,
    ["from.value !== to.value", "from.value > to.value"]
  ),
  stale(
    "nights are counted on change of the departure alone",
    "mooring",
    `
const DAY = 24 * 60 * 60 * 1000;
on.change(fields.departure, () => {
  const { arrival, departure } = fields;
  fields.nights.value = arrival.value === null || departure.value === null ? null : round((Date.parse(departure.value) - Date.parse(arrival.value)) / DAY);
});`,
    [
      "on.change(fields.departure, () => {",
      "on.change([fields.arrival, fields.departure], () => {"
    ]
  ),
  stale(
    "the amount is not made anew when the berth changes",
    "dues",
    `
const sum = () => { fields.amount.value = round((fields.berth.row?.rate ?? 0) * (fields.tonnage.value ?? 0) * (fields.days.value ?? 0), 2); };
on.load(sum);
on.change([fields.days, fields.tonnage], sum);`,
    ["[fields.days, fields.tonnage]", "[fields.days, fields.tonnage, fields.berth]"]
  ),
  stale(
    "what the former berth brought stays when none is chosen",
    "dues",
    `
on.change(fields.berth, ({ part }) => {
  const { row } = part;
  if (row === null) return;
  fields.rate.value = row.rate;
});`,
    [
      "if (row === null) return;\n  fields.rate.value = row.rate;",
      "fields.rate.value = row?.rate ?? null;"
    ]
  ),
  stale(
    "a discount is taken off what was already reduced",
    "dues",
    `
on.change([fields.days, fields.tonnage], () => { fields.amount.value = (fields.days.value ?? 0) * (fields.tonnage.value ?? 0); });
on.change(fields.discount, ({ value }) => { fields.amount.value = round((fields.amount.value ?? 0) * (1 - (value ?? 0) / 100), 2); });`,
    [
      "on.change([fields.days, fields.tonnage], () => { fields.amount.value = (fields.days.value ?? 0) * (fields.tonnage.value ?? 0); });\non.change(fields.discount, ({ value }) => { fields.amount.value = round((fields.amount.value ?? 0) * (1 - (value ?? 0) / 100), 2); });",
      "keep(() => { fields.amount.value = round((fields.days.value ?? 0) * (fields.tonnage.value ?? 0) * (1 - (fields.discount.value ?? 0) / 100), 2); });"
    ]
  ),
  stale(
    "the value before the last change is taken for the former choice",
    "works",
    `
keep(() => { fields.leader.hint = fields.works_kind.previous === "hot" ? "Was hot work before." : null; });`,
    [
      'fields.works_kind.previous === "hot" ? "Was hot work before." : null',
      'fields.works_kind.value === "hot" ? "Hot work." : null'
    ]
  ),
  stale(
    "a counter at the top of the file outlives the record",
    "works",
    `
let warned = false;
on.load(() => { if (fields.works_kind.value === "hot") warned = true; });
keep(() => { fields.contractor.hint = fields.works_kind.value !== null && warned ? "Hot work needs a watch." : null; });`,
    ["let warned = false;\n", ""],
    ['on.load(() => { if (fields.works_kind.value === "hot") warned = true; });\n', ""],
    ["fields.works_kind.value !== null && warned", 'fields.works_kind.value === "hot"']
  ),
  saved2(
    "the agent of a saved request is overwritten at load",
    "clearance",
    `
on.load(() => { fields.agent_name.value = form.person.name; });`,
    [
      "fields.agent_name.value = form.person.name;",
      "if (form.isNew) fields.agent_name.value = form.person.name;"
    ]
  ),
  saved2(
    "each opening raises the fee",
    "clearance",
    `
on.load(() => { if (fields.priority.value === true) fields.fee.value = (fields.fee.value ?? 0) + 50; });
on.change(fields.priority, ({ value }) => { fields.fee.value = value === true ? 50 : null; });`,
    [
      "on.load(() => { if (fields.priority.value === true) fields.fee.value = (fields.fee.value ?? 0) + 50; });\n",
      ""
    ]
  ),
  saved2(
    "a remark grows at each opening",
    "clearance",
    `
on.load(() => { if (!form.isNew) fields.remark.value = (fields.remark.value ?? "") + " seen"; });`,
    [
      'on.load(() => { if (!form.isNew) fields.remark.value = (fields.remark.value ?? "") + " seen"; });',
      'on.load(() => { if (!form.isNew) fields.remark.hint = "Seen before."; });'
    ]
  ),
  saved2(
    "the launched purpose does not do what the typed one does",
    "clearance",
    `
on.load(() => { if (form.isNew && form.launch.purpose === "repair") fields.purpose.value = "repair"; });
on.load(() => { fields.fee.required = false; });
on.change(fields.purpose, ({ value, by }) => { fields.fee.required = by === "person" && value === "repair"; });`,
    ["fields.fee.required = false;", 'fields.fee.required = fields.purpose.value === "repair";'],
    ['by === "person" && ', ""]
  ),
  saved2(
    "a default is cleared and never comes back",
    "clearance",
    `
on.change(fields.priority, ({ value }) => { if (value === true) fields.state.value = null; });`,
    [
      "if (value === true) fields.state.value = null;",
      'if (value === true && fields.state.value === null) fields.state.value = "open";'
    ]
  ),
  saved2(
    "written after it was saved",
    "clearance",
    `
on.saved(() => { fields.state.value = "checked"; });`,
    [
      'on.saved(() => { fields.state.value = "checked"; });',
      'on.submit(() => { fields.state.value = "checked"; });'
    ]
  ),
  saved2(
    "the berth of a record is reset as if it had been changed",
    "dues",
    `
on.load(() => { if (fields.exempt.value === true) fields.days.value = null; });
on.change(fields.exempt, ({ value }) => { if (value === true) fields.days.value = null; });`,
    ["on.load(() => { if (fields.exempt.value === true) fields.days.value = null; });\n", ""]
  ),
  saved2(
    "options at load leave out what the record has",
    "clearance",
    `
on.load(() => { fields.state.options = ["open", "checked"]; });`,
    [
      'fields.state.options = ["open", "checked"];',
      'if (form.isNew) fields.state.options = ["open", "checked"];'
    ]
  )
];

// tests/conformance/finding/faults-on-screen.ts
var never3 = faultsOf("not taken back");
var load = faultsOf("missing at load");
var hidden = faultsOf("off screen");
var dead = faultsOf("dead end");
var faultsOnScreen = [
  never3(
    "shown for one option, never hidden again",
    "mooring",
    `
on.load(() => { fields.licence.shown = fields.pilot.value === "own"; });
on.change(fields.pilot, ({ value }) => {
  if (value === "own") fields.licence.shown = true;
});`,
    [
      'if (value === "own") fields.licence.shown = true;',
      'fields.licence.shown = value === "own";'
    ]
  ),
  never3(
    "required stays after the option is left",
    "works",
    `
const say = () => {
  if (fields.works_kind.value === "hot") fields.fire_watch.required = true;
};
on.load(say);
on.change(fields.works_kind, say);`,
    [
      'if (fields.works_kind.value === "hot") fields.fire_watch.required = true;',
      'fields.fire_watch.required = fields.works_kind.value === "hot";'
    ]
  ),
  never3(
    "two of three branches of a switch lack one field",
    "works",
    `
const say = () => {
  switch (fields.works_kind.value) {
    case "hot": fields.fire_watch.shown = true; fields.divers.shown = false; break;
    case "diving": fields.divers.shown = true; fields.fire_watch.shown = false; break;
    default: fields.fire_watch.shown = false; break;
  }
};
on.load(say);
on.change(fields.works_kind, say);`,
    [
      "default: fields.fire_watch.shown = false; break;",
      "default: fields.fire_watch.shown = false; fields.divers.shown = false; break;"
    ]
  ),
  never3(
    "a hint stays when the field is emptied",
    "mooring",
    `
const say = () => {
  const { value } = fields.draught;
  if (value === null) return;
  fields.draught.hint = value > 12 ? "Deep water berths only." : null;
};
on.load(say);
on.change(fields.draught, say);`,
    [
      "if (value === null) return;\n  fields.draught.hint = value > 12",
      "fields.draught.hint = value !== null && value > 12"
    ]
  ),
  never3(
    "a lock is set by a granted permit and survives its refusal",
    "works",
    `
const settle = () => {
  if (fields.status.value === "granted") { fields.hours.locked = true; fields.works_kind.locked = true; }
  else fields.hours.locked = false;
};
on.load(settle);
on.change(fields.status, settle);`,
    [
      "else fields.hours.locked = false;",
      "else { fields.hours.locked = false; fields.works_kind.locked = false; }"
    ]
  ),
  never3(
    "options are narrowed and never widened",
    "mooring",
    `
const narrow = () => {
  if (fields.kind.value === "tanker") fields.pilot.options = ["harbour"];
};
on.load(narrow);
on.change(fields.kind, narrow);`,
    [
      'if (fields.kind.value === "tanker") fields.pilot.options = ["harbour"];',
      'fields.pilot.options = fields.kind.value === "tanker" ? ["harbour"] : undefined;'
    ]
  ),
  never3(
    "a problem that no later value takes away",
    "works",
    `
const check = () => {
  const hours = fields.hours.value ?? 0;
  if (hours > 24) fields.hours.problem = "A permit covers a day at most.";
  if (hours === 0) fields.hours.problem = null;
};
on.load(check);
on.change(fields.hours, check);`,
    ["if (hours === 0) fields.hours.problem = null;", "else fields.hours.problem = null;"]
  ),
  never3(
    "a section stays hidden once the stay was cleared",
    "mooring",
    `
on.change(fields.arrival, ({ value }) => {
  if (value !== null) return;
  sections.pilotage.shown = false;
});`,
    [
      "if (value !== null) return;\n  sections.pilotage.shown = false;",
      "sections.pilotage.shown = true;"
    ]
  ),
  never3(
    "a label says the last option for ever",
    "dues",
    `
const name = () => {
  if (fields.payer.value === "owner") fields.account.hint = "The owner's account.";
  else if (fields.payer.value === "charterer") fields.account.hint = "The charterer's account.";
};
on.load(name);
on.change(fields.payer, name);`,
    [
      `"The charterer's account.";`,
      `"The charterer's account.";
  else fields.account.hint = null;`
    ]
  ),
  never3(
    "a warning in a row stays when its danger goes",
    "manifest",
    `
on.change(fields.goods.each.dangerous, ({ row, value }) => {
  if (value === true) row.fields.un_number.required = true;
});
on.load(() => { for (const row of fields.goods.rows) row.fields.un_number.required = row.fields.dangerous.value === true; });
on.rowAdded(fields.goods, ({ row }) => { row.fields.un_number.required = row.fields.dangerous.value === true; });`,
    [
      "if (value === true) row.fields.un_number.required = true;",
      "row.fields.un_number.required = value === true;"
    ]
  ),
  never3(
    "a page is opened by a complaint and stays for a yearly visit",
    "inspection",
    `
const pagesFor = () => {
  if (fields.reason.value === "yearly") pages.hull.shown = true;
  if (fields.reason.value === "complaint") pages.hull.shown = false;
};
on.load(pagesFor);
on.change(fields.reason, pagesFor);`,
    [
      'if (fields.reason.value === "yearly") pages.hull.shown = true;\n  if (fields.reason.value === "complaint") pages.hull.shown = false;',
      'pages.hull.shown = fields.reason.value !== "complaint";'
    ]
  ),
  load(
    "the licence is asked for on change alone",
    "mooring",
    `
on.change(fields.pilot, () => {
  fields.licence.required = fields.pilot.value === "own";
});`,
    ["on.change(fields.pilot, () => {", "const ask = () => {"],
    [' === "own";\n});', ' === "own";\n};\non.load(ask);\non.change(fields.pilot, ask);']
  ),
  load(
    "a saved granted permit can be changed until its status is touched",
    "works",
    `
on.change(fields.status, ({ value }) => { sections.job.locked = value === "granted"; });`,
    [
      'on.change(fields.status, ({ value }) => { sections.job.locked = value === "granted"; });',
      'keep(() => { sections.job.locked = fields.status.value === "granted"; });'
    ]
  ),
  load(
    "hidden at load whatever the record says",
    "works",
    `
on.load(() => { fields.reason.shown = false; });
on.change(fields.status, ({ value }) => { fields.reason.shown = value === "refused"; });`,
    ["fields.reason.shown = false;", 'fields.reason.shown = fields.status.value === "refused";']
  ),
  load(
    "loaded rows are not gone through",
    "manifest",
    `
on.change(fields.goods.each.dangerous, ({ row, value }) => { row.fields.un_number.shown = value === true; });
on.rowAdded(fields.goods, ({ row }) => { row.fields.un_number.shown = row.fields.dangerous.value === true; });`,
    [
      "on.rowAdded",
      "on.load(() => { for (const row of fields.goods.rows) row.fields.un_number.shown = row.fields.dangerous.value === true; });\non.rowAdded"
    ]
  ),
  load(
    "at load only new entries are looked at",
    "dues",
    `
const exemptions = () => { fields.discount.locked = fields.exempt.value === true; };
on.load(() => { if (form.isNew) exemptions(); });
on.change(fields.exempt, exemptions);`,
    ["if (form.isNew) exemptions();", "exemptions();"]
  ),
  load(
    "at load another condition than on change",
    "clearance",
    `
on.load(() => { fields.checked_by.required = fields.state.value === "closed"; });
on.change(fields.state, ({ value }) => { fields.checked_by.required = value === "checked" || value === "closed"; });`,
    [
      'fields.checked_by.required = fields.state.value === "closed";',
      'fields.checked_by.required = fields.state.value === "checked" || fields.state.value === "closed";'
    ]
  ),
  hidden(
    "a licence number entered before still counts when the pilot is the harbour\u2019s",
    "mooring",
    `
keep("licence", () => { fields.licence.shown = fields.pilot.value === "own"; });
keep("name", () => { fields.pilot_name.required = !fields.licence.empty; });`,
    ["!fields.licence.empty", 'fields.pilot.value === "own" && !fields.licence.empty']
  ),
  hidden(
    "submission stops at a field that is off screen",
    "works",
    `
keep(() => { fields.fire_watch.shown = fields.works_kind.value === "hot"; });
on.submit((event) => { if (fields.fire_watch.empty) event.stop("Name the fire watch.", fields.fire_watch); });`,
    [
      "if (fields.fire_watch.empty)",
      'if (fields.works_kind.value === "hot" && fields.fire_watch.empty)'
    ]
  ),
  hidden(
    "a stop without words",
    "dues",
    `
on.submit((event) => { if (fields.payer.value === "owner" && fields.account.empty) event.stop("", fields.account); });`,
    ['stop("",', 'stop("Give the account of the owner.",']
  ),
  hidden(
    "the sum counts a deposit that is off screen",
    "dues",
    `
keep(() => { fields.deposit.shown = fields.payer.value === "charterer"; });
keep(() => { fields.amount.value = (fields.days.value ?? 0) * 10 - (fields.deposit.value ?? 0); });`,
    [
      "(fields.deposit.value ?? 0); });",
      '(fields.payer.value === "charterer" ? fields.deposit.value ?? 0 : 0); });'
    ]
  ),
  hidden(
    "shown within a section that is never shown",
    "works",
    `
keep("safety", () => { sections.safety.shown = false; });
keep("divers", () => { fields.divers.shown = fields.works_kind.value === "diving"; });`,
    ["sections.safety.shown = false;", "sections.safety.shown = fields.works_kind.value !== null;"]
  ),
  hidden(
    "a condition that asks for two options at once",
    "works",
    `
keep("boat", () => { fields.standby_boat.shown = fields.works_kind.value === "diving" && fields.status.value === "granted" && fields.works_kind.value !== "diving"; });`,
    [' && fields.works_kind.value !== "diving"', ""]
  ),
  hidden(
    "a page that its own first field would have to open",
    "inspection",
    `
keep("close", () => { pages.close.shown = fields.passed.value !== null; });`,
    ["fields.passed.value !== null", "fields.condition.value !== null"]
  ),
  hidden(
    "required though off screen, and stopped for it by hand",
    "mooring",
    `
keep(() => {
  fields.pilot_name.shown = fields.pilot.value === "own";
  fields.pilot_name.problem = fields.pilot_name.empty && fields.pilot.value !== null ? "Who pilots?" : null;
});
on.submit((event) => { if (fields.pilot.value !== null && fields.pilot_name.empty) event.stop("Who pilots?", fields.pilot_name); });`,
    [
      "if (fields.pilot.value !== null && fields.pilot_name.empty)",
      'if (fields.pilot.value === "own" && fields.pilot_name.empty)'
    ]
  ),
  hidden(
    "the hint of one field goes by the hidden one\u2019s value",
    "works",
    `
on.load(() => { fields.divers.shown = fields.works_kind.value === "diving"; });
on.change(fields.works_kind, ({ value }) => { fields.divers.shown = value === "diving"; });
keep(() => { fields.standby_boat.required = (fields.divers.value ?? 0) > 1; });`,
    ["(fields.divers.value ?? 0) > 1", "fields.divers.shown && (fields.divers.value ?? 0) > 1"]
  ),
  dead(
    "locked while empty and required",
    "clearance",
    `
keep(() => {
  fields.checked_by.locked = true;
  fields.checked_by.required = fields.state.value === "closed";
});
on.load(() => { if (form.isNew) fields.state.value = "closed"; });`,
    [
      "fields.checked_by.locked = true;",
      'fields.checked_by.locked = fields.state.value !== "closed";'
    ]
  ),
  dead(
    "two checks that nothing can pass together",
    "mooring",
    `
keep(() => {
  fields.nights.problem = fields.nights.value === null || fields.nights.value < 1 ? "One night at least." : null;
  fields.nights.locked = fields.arrival.value === null || fields.departure.value === null || true;
});`,
    [" || true;", ";"]
  ),
  dead(
    "required and hidden in one breath, checked by hand at submit",
    "dues",
    `
keep(() => { sections.payment.shown = fields.exempt.value !== true; });
on.submit((event) => { if (fields.payer.empty) event.stop("Who pays?", fields.payer); });`,
    ["if (fields.payer.empty)", "if (sections.payment.shown && fields.payer.empty)"]
  ),
  dead(
    "a leader is asked for where nobody can be entered",
    "works",
    `
keep(() => {
  fields.leader.required = true;
  fields.leader.locked = true;
});
on.click(buttons.grant, () => { fields.status.value = "granted"; });`,
    ['fields.status.value = "granted";', "fields.leader.value = form.person.name;"]
  ),
  hidden(
    "the club that was named first is saved with a private boat",
    "slip",
    `
keep(() => { fields.club.shown = fields.use.value === "club"; });`,
    [
      'fields.club.shown = fields.use.value === "club"; });',
      'fields.club.shown = fields.use.value === "club"; });\non.change(fields.use, ({ value }) => { if (value !== "club") fields.club.value = null; });'
    ]
  ),
  hidden(
    "the shed of a boat that stays afloat",
    "slip",
    `
on.load(() => { fields.shed.shown = fields.winter.value === "ashore"; });
on.change(fields.winter, ({ value }) => { fields.shed.shown = value === "ashore"; });`,
    [
      'fields.shed.shown = value === "ashore"; });',
      'fields.shed.shown = value === "ashore"; if (value !== "ashore") fields.shed.value = null; });'
    ]
  ),
  never3(
    "the form is replaced for a lay-up and never comes back",
    "clearance",
    `
on.change(fields.purpose, ({ value }) => { if (value === "lay_up") form.replaceWith("Ask the harbour master for a lay-up."); });`,
    [
      'if (value === "lay_up") form.replaceWith("Ask the harbour master for a lay-up.");',
      'form.replaceWith(value === "lay_up" ? "Ask the harbour master for a lay-up." : null);'
    ]
  ),
  never3(
    "a hint counts how often it was changed",
    "mooring",
    `
on.change(fields.kind, () => { fields.kind.hint = fields.kind.hint === null ? "Changed." : fields.kind.hint + " Again."; });
on.load(() => { fields.kind.hint = null; });`,
    [
      'fields.kind.hint = fields.kind.hint === null ? "Changed." : fields.kind.hint + " Again."; });',
      'fields.kind.hint = fields.kind.value === null ? null : "Changed."; });'
    ],
    [
      "on.load(() => { fields.kind.hint = null; });",
      'on.load(() => { fields.kind.hint = fields.kind.value === null ? null : "Changed."; });'
    ]
  ),
  load(
    "a launched purpose is written after the form was arranged",
    "clearance",
    `
const arrange = () => { fields.fee.shown = fields.purpose.value === "repair"; };
on.load(() => { arrange(); if (form.isNew && form.launch.purpose === "repair") fields.purpose.value = "repair"; });
on.change(fields.purpose, ({ by }) => { if (by === "person") arrange(); });`,
    ['({ by }) => { if (by === "person") arrange(); }', "arrange"]
  ),
  dead(
    "a problem on what is computed, that no input can mend",
    "mooring",
    `
keep(() => {
  fields.nights.locked = true;
  fields.nights.value = fields.arrival.value === null || fields.departure.value === null ? 0 : Temporal.PlainDate.from(fields.departure.value).until(fields.arrival.value).days;
  fields.nights.problem = (fields.nights.value ?? 0) < 0 || (fields.nights.value ?? 0) > 0 || fields.arrival.value === null ? "The stay has to be a night at least." : null;
});
on.submit((event) => { if ((fields.nights.value ?? 0) < 1) event.stop("The stay has to be a night at least.", fields.nights); });`,
    [
      "Temporal.PlainDate.from(fields.departure.value).until(fields.arrival.value).days",
      "Temporal.PlainDate.from(fields.arrival.value).until(fields.departure.value).days"
    ],
    [
      "(fields.nights.value ?? 0) < 0 || (fields.nights.value ?? 0) > 0 || fields.arrival.value === null ?",
      "(fields.nights.value ?? 0) < 1 ?"
    ]
  ),
  dead(
    "a section is locked for whoever has to fill it in",
    "clearance",
    `
keep(() => {
  sections.request.locked = !form.isNew || form.person.roles.includes("agent");
  fields.agent_name.required = true;
});`,
    [
      '!form.isNew || form.person.roles.includes("agent")',
      '!form.isNew && fields.state.initial === "closed"'
    ]
  ),
  hidden(
    "a submission stops at a page that is hidden",
    "inspection",
    `
keep(() => { pages.hull.shown = fields.reason.value !== "complaint"; });
on.submit((event) => { if (fields.condition.empty) event.stop("In what condition is the hull?", fields.condition); });`,
    ["if (fields.condition.empty)", "if (pages.hull.shown && fields.condition.empty)"]
  )
];

// tests/conformance/finding/corpus.ts
var faults = [
  ...faultsOnScreen,
  ...faultsOfValues,
  ...faultsOfOrder,
  ...faultsInSource
];

// tests/conformance/finding/right.ts
var right = (about, form2, code) => ({
  about,
  form: form2,
  code: code.trim()
});
var rightOnes = [
  right(
    "a value filled once, for the person to change",
    "mooring",
    `
on.change(fields.kind, ({ value }) => { if (value === "tanker" && fields.pilot.empty) fields.pilot.value = "harbour"; });`
  ),
  right(
    "a button that empties what was entered",
    "mooring",
    `
on.click(buttons.clear_stay, () => { fields.arrival.value = null; fields.departure.value = null; fields.nights.value = null; });`
  ),
  right(
    "the departure follows the arrival when it would be before it",
    "mooring",
    `
on.change(fields.arrival, ({ value }) => { if (value !== null && fields.departure.value !== null && fields.departure.value < value) fields.departure.value = value; });`
  ),
  right(
    "nights by both dates, in a rule",
    "mooring",
    `
keep(() => {
  const { arrival, departure } = fields;
  fields.nights.locked = true;
  fields.nights.value = arrival.value === null || departure.value === null ? null : Temporal.PlainDate.from(arrival.value).until(departure.value).days;
});`
  ),
  right(
    "shown, required and emptied with its choice",
    "mooring",
    `
keep(() => { fields.licence.shown = fields.pilot.value === "own"; fields.licence.required = fields.licence.shown; });
on.change(fields.pilot, ({ value }) => { if (value !== "own") fields.licence.value = null; });`
  ),
  right(
    "a prefill for new entries",
    "clearance",
    `
on.load(() => { if (form.isNew) fields.agent_name.value = form.person.name; });`
  ),
  right(
    "a prefill from the launch",
    "clearance",
    `
on.load(() => { if (form.isNew && form.launch.visit) fields.remark.value = "Visit " + form.launch.visit; });`
  ),
  right(
    "a record locked by what it was saved as",
    "clearance",
    `
keep(() => { sections.request.locked = fields.state.initial === "closed"; });`
  ),
  right(
    "a greeting with the name of whoever opens it",
    "clearance",
    `
on.load(() => { fields.remark.hint = "Write to " + form.person.name + "."; });`
  ),
  right(
    "what an agent does not see",
    "clearance",
    `
keep(() => { sections.office.shown = form.person.roles.includes("officer"); });`
  ),
  right(
    "an approval keeps who gave it",
    "works",
    `
on.change(fields.status, ({ value }) => { fields.granted_by.value = value === "granted" ? form.person.name : null; });
keep(() => { fields.granted_by.locked = true; });`
  ),
  right(
    "a button that grants once",
    "works",
    `
on.click(buttons.grant, () => { fields.status.value = "granted"; });
keep(() => { buttons.grant.locked = fields.status.value === "granted"; });`
  ),
  right(
    "a reason asked for when refused",
    "works",
    `
keep(() => { fields.reason.shown = fields.status.value === "refused"; fields.reason.required = fields.reason.shown; });`
  ),
  right(
    "three sorts of work, each with its own fields",
    "works",
    `
keep(() => {
  const kind = fields.works_kind.value;
  fields.fire_watch.shown = kind === "hot";
  fields.divers.shown = kind === "diving";
  fields.standby_boat.shown = kind === "diving";
});`
  ),
  right(
    "a default hidden at load that a rule takes over",
    "works",
    `
on.load(() => { fields.divers.shown = false; });
keep(() => { fields.divers.shown = fields.works_kind.value === "diving"; });`
  ),
  right(
    "options narrowed, the chosen one let go when it is gone",
    "works",
    `
keep(() => { fields.status.options = fields.contractor.empty ? ["draft"] : ["draft", "granted", "refused"]; });`
  ),
  right(
    "the total of all rows",
    "manifest",
    `
keep(() => { fields.total.value = fields.goods.sum("weight"); fields.lines.value = fields.goods.count; });`
  ),
  right(
    "dangerous goods anywhere",
    "manifest",
    `
keep(() => { fields.note.required = fields.goods.value.some((row) => row.dangerous === true); });`
  ),
  right(
    "each row asks for itself",
    "manifest",
    `
keep.each(fields.goods, (row) => { row.fields.un_number.shown = row.fields.dangerous.value === true; row.fields.un_number.required = row.fields.un_number.shown; });`
  ),
  right(
    "the first line is the main cargo",
    "manifest",
    `
keep(() => { fields.consignee.hint = fields.goods.count === 0 ? null : "Main cargo: " + (fields.goods.value[0]!.what ?? "not named"); });`
  ),
  right(
    "duplicates among the rows",
    "manifest",
    `
keep(() => {
  const names = fields.goods.value.map(({ what }) => what).filter((what) => what !== null);
  fields.goods.warning = new Set(names).size < names.length ? "Something is listed twice." : null;
});`
  ),
  right(
    "a submission stops at the first row that lacks something",
    "manifest",
    `
on.submit((event) => { for (const row of fields.goods.rows) if (row.fields.dangerous.value === true && row.fields.un_number.empty) return event.stop("Which UN number?", row.fields.un_number); });`
  ),
  right(
    "insurance as it was answered",
    "manifest",
    `
keep(() => { fields.total_worth.value = fields.insured.value === true ? fields.goods.sum("worth") : null; });`
  ),
  right(
    "dues with rounding, empty while something is missing",
    "dues",
    `
keep(() => {
  const { berth, days, tonnage, exempt } = fields;
  fields.rate.value = berth.row?.rate ?? null;
  fields.amount.value = berth.row === null || days.value === null || tonnage.value === null ? null : exempt.value === true ? 0 : round(berth.row.rate * days.value * tonnage.value, 2);
});`
  ),
  right(
    "a rate that people may put another one in for",
    "dues",
    `
on.change(fields.berth, ({ part }) => { fields.deposit.value = part.row === null ? null : part.row.rate * 10; });`
  ),
  right(
    "a large berth asks for the account",
    "dues",
    `
keep(() => { fields.account.required = fields.payer.value !== null && (fields.berth.row?.depth ?? 0) > 10; });`
  ),
  right(
    "at submit the payer is asked for where it is on screen",
    "dues",
    `
keep(() => { sections.payment.shown = fields.exempt.value !== true; });
on.submit((event) => { if (sections.payment.onScreen && fields.payer.empty) event.stop("Who pays?", fields.payer); });`
  ),
  right(
    "a message at a button",
    "dues",
    `
on.click(buttons.recalculate, () => { form.message("The amount is " + (fields.amount.value ?? 0) + "."); });`
  ),
  right(
    "a ship looked up, emptied when it is unknown, told when the register is down",
    "register",
    `
keep(() => { fields.ship.locked = fields.by_hand.value !== true; });
on.change(fields.imo, async ({ value }) => {
  fields.ship.value = null;
  fields.imo.warning = null;
  if (value === null) return;
  try { fields.ship.value = (await services.ships.find({ imo: value }))?.name ?? null; }
  catch { fields.imo.warning = "The register does not answer. Enter the ship by hand."; }
});`
  ),
  right(
    "waiting shown and ended in every case",
    "register",
    `
on.click(buttons.look_up, async () => {
  buttons.look_up.locked = true;
  fields.imo.locked = true;
  try { fields.tonnage.value = (await services.ships.find({ imo: fields.imo.value ?? "" }))?.tonnage ?? null; }
  catch { form.message("The register does not answer.", "warning"); }
  finally { buttons.look_up.locked = false; fields.imo.locked = false; }
});`
  ),
  right(
    "an answer only where nothing is entered yet",
    "register",
    `
on.change(fields.imo, async ({ value }) => {
  if (value === null) return;
  try {
    const found = await services.ships.find({ imo: value });
    if (found !== null && fields.flag.empty) fields.flag.value = found.flag;
  } catch { form.message("The register does not answer."); }
});`
  ),
  right(
    "pages by the reason",
    "inspection",
    `
keep(() => { pages.hull.shown = fields.reason.value !== "complaint"; });`
  ),
  right(
    "reasons for what did not pass",
    "inspection",
    `
keep(() => { fields.reasons.shown = fields.passed.value === false; fields.reasons.required = fields.reasons.shown; });`
  ),
  right(
    "a due date only where there is something to repair",
    "inspection",
    `
keep(() => { sections.repair.shown = fields.condition.value === "bad"; fields.due.required = fields.condition.value === "bad"; });`
  ),
  right(
    "thin plates are worth a warning",
    "inspection",
    `
keep(() => { fields.thickness.warning = fields.thickness.value !== null && fields.thickness.value < 8 ? "Thinner than 8 mm." : null; });`
  ),
  right(
    "a fee in two handlers that agree",
    "clearance",
    `
const fee = () => { fields.fee.value = fields.priority.value === true ? 80 : 40; };
on.load(() => { if (form.isNew) fee(); });
on.change(fields.priority, fee);`
  ),
  right(
    "dates in order, checked from both ends",
    "clearance",
    `
keep(() => { fields.to.problem = fields.from.value !== null && fields.to.value !== null && fields.to.value < fields.from.value ? "Ends before it begins." : null; });`
  ),
  right(
    "a table of texts by key",
    "dues",
    `
const HINTS = { agent: "Within 14 days.", owner: "Within 30 days.", charterer: "At once." } as const;
keep(() => { fields.account.hint = fields.payer.value === null ? null : HINTS[fields.payer.value]; });`
  ),
  right(
    "a guard for what may not be there",
    "dues",
    `
keep(() => { fields.days.hint = fields.berth.row === null ? null : fields.berth.row.closed_on === null ? "Open every day." : "Closed on " + fields.berth.row.closed_on + "."; });`
  ),
  right(
    "what was typed is kept in capitals",
    "register",
    `
on.change(fields.flag, ({ value }) => { if (value !== null) fields.flag.value = value.toUpperCase(); });`
  ),
  right(
    "after saving the form says so",
    "clearance",
    `
on.saved(() => { form.message("Sent to the office."); });`
  ),
  right(
    "the status moves on when it is submitted",
    "clearance",
    `
on.submit(() => { if (fields.state.value === null) fields.state.value = "open"; });`
  )
];

// tests/conformance/finding/measure.tmp.ts
var N2 = Number(process.argv[2] ?? 1200);
var half = process.argv[3] ?? "tune";
var only = process.argv[4];
var cpu = () => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1e6;
};
async function run(form2, text3, seed = 1) {
  const sources = [{ name: "x.ts", text: `/** X: x. */
${text3}
` }];
  const around = { tables: TABLES, services: SERVICES };
  const ground = {
    form: FORMS2[form2],
    ...around,
    sources,
    people: PEOPLE,
    records: RECORDS2[form2] ?? [],
    clock: Date.parse("2031-05-02T09:00:00Z")
  };
  return search(ground, mentionsOf(sources), await stageOf(materialOf(FORMS2[form2], around, sources, "traced")), {
    seed,
    sessions: N2
  });
}
var show = (f) => `${f.level} ${f.kind} ${f.part}.${f.aspect} @${f.lines.map((l) => l.line)} | ${f.says.slice(0, 150)} | ${JSON.stringify(f.way.steps).slice(0, 160)} /// ${JSON.stringify(f.other?.steps ?? null).slice(0, 100)} ${f.way.opening.record?.id ?? "new"} ${f.way.opening.person.key}`;
var found = 0;
var may = 0;
var n = 0;
var noisy = 0;
var time3 = 0;
var sessions = 0;
var seen = /* @__PURE__ */ new Map();
var list = [];
var every = Number(process.env.EVERY ?? 1);
var nth = 0;
for (const f of faults) {
  const i = seen.get(f.group) ?? 0;
  seen.set(f.group, i + 1);
  if (half === "tune" ? i % 2 === 1 : half === "aside" ? i % 2 === 0 : false) continue;
  if (f.shows !== "use" && process.argv[5] !== "source") continue;
  if (only && !f.about.includes(only)) continue;
  if (nth++ % every !== Number(process.env.SHARD ?? 0)) continue;
  const t = cpu();
  const a = await run(f.form, f.faulty);
  time3 += cpu() - t;
  sessions += a.sessions;
  n++;
  const b = await run(f.form, mendedOf(f));
  const key = (x) => `${x.kind} ${x.part}.${x.aspect}`;
  const twin = new Set(b.findings.filter((x) => x.level === "wrong").map(key));
  const mine = a.findings.filter((x) => x.level === "wrong" && !twin.has(key(x)));
  if (mine.length) found++;
  else {
    const m = a.findings.filter((x) => x.level === "may");
    if (m.length) may++;
    list.push(
      `MISSED ${f.group}: ${f.about}` + m.slice(0, 4).map((x) => "\n      " + show(x)).join("")
    );
  }
  if (twin.size) {
    noisy++;
    list.push(
      `TWIN ${f.group}: ${f.about}` + b.findings.filter((x) => x.level === "wrong").map((x) => "\n      " + show(x)).join("")
    );
  }
  if (only)
    list.push(
      ...a.findings.map((x) => "  F " + show(x)),
      ...b.findings.map((x) => "  M " + show(x))
    );
}
if (half === "right" || half === "tune") {
  let i = 0;
  let rn = 0;
  for (const r of rightOnes) {
    if (rn++ % every !== Number(process.env.SHARD ?? 0)) continue;
    if (only && !r.about.includes(only)) continue;
    void i;
    const a = await run(r.form, r.code);
    const w = a.findings.filter((x) => x.level === "wrong");
    if (w.length) list.push(`RIGHT ${r.about}` + w.map((x) => "\n      " + show(x)).join(""));
  }
}
console.log(list.join("\n"));
console.log(
  half,
  `found ${found} of ${n}, may ${may} more, twins noisy ${noisy}; ${(time3 / n).toFixed(2)} s cpu each, ${Math.round(sessions / time3)} sessions/s`
);
export {
  run
};
