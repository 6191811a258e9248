/** Names to invent people from: common given names and family names in many languages, joined by chance. */
export const FIRST_NAMES = (
  'Precious Dana Yusuf Tomás Jonna Ruth Marisol Edwin Harlan Ilona Kwame Idris Rosa Wilhelmina Amara Noor Priya Mei Sofia Lucas Ines Oskar Freya Aino Zeynep Emre Chidi Ngozi Thandi Sipho Aoife Niamh Cormac Siobhan ' +
  'Hana Kenji Yuki Minh Linh Ana Mateo Valentina Diego Camila Elif Omar Layla Karim Fatima Anders Liv Nils Astrid Pavel Katya Milan Jana Tereza Marek Agnes Piotr Zofia Laszlo Eszter Ioana Radu Elena Giorgos Despina ' +
  'Margaret Walter Dorothy Harold June Stanley Pearl Leonard Opal Vernon Hazel Clifford Mabel Roland Iris Douglas Vera Russell Myrtle Gordon Rafael Beatriz Joaquim Teresa Abena Kofi Esi Tunde Bola Femi Ada'
).split(' ');

export const LAST = (
  'Okafor Whitlock Demir Reyes Lindqvist Abara Castellan Pryce Nakamura Varga Osei Vale Oduya Featherstone Marsh Bellweather Tran Nguyen Kowalski Novak Horvat Silva Costa Pereira Santos Herrera Vega Molina Ibarra Fuentes ' +
  'Haddad Nasser Rahman Chowdhury Iyer Menon Kapoor Tanaka Sato Mori Ito Chen Lin Zhao Park Seo Hansen Berg Dahl Nyström Koskinen Virtanen Petrov Sokolov Dvorak Nemeth Popescu Ionescu Nikolaidis Byrne Doyle Kavanagh Rowntree ' +
  'Ashdown Thackeray Holloway Penhallow Trelawny Quayle Sandoval Espinoza Mbeki Dlamini Adeyemi Eze Boateng Mensah Owusu Kamau Wanjiru Achterberg Visser Brandt Keller Vogt Lehmann Moreau Lefevre Girard Rossi Greco Marino'
).split(' ');

/**
 * Real area codes of the United States and Canada; with 555-0100 to 0199 they make numbers set aside for
 * fiction.
 */
export const AREA_CODES = (
  '604 416 201 202 203 205 206 207 208 209 210 212 213 214 215 216 217 218 219 224 225 228 229 231 234 239 240 248 251 252 253 254 256 260 262 267 269 270 272 276 281 301 302 303 304 305 307 308 309 310 312 313 314 315 316 317 318 319 320 321 323 ' +
  '325 330 334 336 337 339 347 351 352 360 361 385 386 401 402 404 405 406 407 408 409 410 412 413 414 415 417 419 423 424 425 430 432 434 435 440 443 458 469 470 475 478 479 480 484 501 502 503 504 505 507 508 509 510 512 513 515 516 517 ' +
  '518 520 530 540 541 551 559 561 562 563 567 570 571 573 574 575 580 585 586 601 602 603 605 606 607 608 609 610 612 614 615 616 617 618 619 620 623 626 630 631 636 641 646 650 651 657 660 661 662 667 678 682 701 702 703 704 706 707 708'
).split(' ');

export const CROSSINGS = [
  'the evening run',
  'the dawn boat',
  'the market crossing',
  'the fog run',
  'the school boat',
];
export const SHIRTS = ['S', 'M', 'L', 'XL', 'XXL'];
export const SKILLS = [
  'caulking',
  'rope work',
  'painting',
  'steering',
  'carpentry',
  'first aid',
  'book-keeping',
];

/** Streets of Port Alder, which is nowhere. */
export const STREETS = (
  'Slip Lane|Anchor Street|Rope Walk|Oakum Row|Ferry Road|Caulker Street|Lantern Hill|Tiller Street|Eddy Lane|Upper Quay|Lower Quay|Mast Street|' +
  'Planker Close|Bellmouth Road|Alder Avenue|5th Street|Kingfisher Way|Driftwood Court|Towpath|Keel Street|Harrow Bend|Old Landing Road|Sawpit Lane|Willow Bank'
).split('|');
