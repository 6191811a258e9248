export { PROOF_KINDS, ProofFinder, type FoundProof, type ProofKind, type ReadBySomebody } from './find';
export { isNonLatin, isRightToLeft, NAME_DOUBTS, nameDoubts, type NameDoubt } from './names';
