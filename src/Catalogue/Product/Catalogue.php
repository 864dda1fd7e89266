<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Product;

use Verjuicer\Core\Food\Animal as A;
use Verjuicer\Core\Food\Form as F;
use Verjuicer\Core\Food\Integrity as I;

/**
 * What a smokehouse is likely to smoke, to begin with; a site edits it and adds its own. Doneness is how the kitchen likes it,
 * never what the law asks: that follows from animal, form and integrity alone.
 */
final readonly class Catalogue
{
    private const FLAT = ['flat', 'thickest part of the flat, clear of the fat seam'];
    private const POINT = ['point', 'middle of the point, under the fat'];
    private const CORE = ['core', 'middle of the thickest part, clear of bone and fat'];
    private const BONE = ['bone', 'beside the bone, a finger away from it'];
    private const BREAST = ['breast', 'thickest part of the breast, from the front'];
    private const THIGH = ['thigh', 'inside of the thigh, clear of the bone'];
    private const BETWEEN = ['ribs', 'between two bones in the middle of the rack'];
    private const PAN = ['core', 'middle of the pan, stirred'];
    private const LINK = ['core', 'through the end, along the middle'];
    private const SHRED = 'a probe goes in like butter';
    private const SLICE = 'gives under the thumb, springs back';
    private const BEND = 'bends until the bark cracks';

    /** Name, animal, form, integrity, usual grams of one piece, spots, doneness from and to in °F and its feel, wrap, rest. */
    public const PRODUCTS = [
        ['Beef brisket', A::Beef, F::Roast, I::Intact, 6400, [self::FLAT, self::POINT], [195, 205, self::SHRED], 'paper at 165 °F', '1 to 4 h wrapped, insulated box'],
        ['Beef brisket flat', A::Beef, F::Roast, I::Intact, 2700, [self::FLAT], [195, 203, self::SHRED], 'paper at 165 °F', '1 to 2 h wrapped'],
        ['Beef cheek', A::Beef, F::Cut, I::Intact, 450, [self::CORE], [203, 210, self::SHRED], 'covered pan with liquid', '30 min in the pan'],
        ['Beef chuck roast', A::Beef, F::Roast, I::Intact, 1800, [self::CORE], [195, 205, self::SHRED], 'foil at 165 °F', '1 h wrapped'],
        ['Beef rib roast', A::Beef, F::Roast, I::Intact, 5200, [self::CORE, self::BONE], [120, 130, self::SLICE], 'none', '20 min on a rack'],
        ['Beef ribs', A::Beef, F::Cut, I::Intact, 2600, [self::BETWEEN], [200, 206, self::SHRED], 'none, or paper late', '30 min wrapped'],
        ['Beef short ribs', A::Beef, F::Cut, I::Intact, 700, [self::BETWEEN], [200, 206, self::SHRED], 'foil boat', '30 min wrapped'],
        ['Beef tri-tip', A::Beef, F::Roast, I::Intact, 1100, [self::CORE], [125, 135, self::SLICE], 'none', '15 min on a rack'],
        ['Beef tongue', A::Beef, F::Roast, I::Intact, 1400, [self::CORE], [200, 208, self::SHRED], 'covered pan with liquid', '30 min, then peel'],
        ['Corned beef, smoked', A::Beef, F::Roast, I::NonIntact, 4500, [self::FLAT, self::POINT], [198, 205, self::SHRED], 'foil at 160 °F', '1 h wrapped'],
        ['Veal breast', A::Veal, F::Roast, I::Intact, 3200, [self::CORE, self::BONE], [195, 203, self::SHRED], 'foil at 160 °F', '45 min wrapped'],
        ['Lamb breast', A::Lamb, F::Cut, I::Intact, 900, [self::BETWEEN], [195, 203, self::BEND], 'none', '15 min under foil'],
        ['Lamb leg', A::Lamb, F::Roast, I::Intact, 2800, [self::CORE, self::BONE], [135, 145, self::SLICE], 'none', '20 min under foil'],
        ['Lamb ribs', A::Lamb, F::Cut, I::Intact, 800, [self::BETWEEN], [190, 200, self::BEND], 'foil at 165 °F', '15 min under foil'],
        ['Lamb shank', A::Lamb, F::Cut, I::Intact, 450, [self::BONE], [195, 203, self::SHRED], 'covered pan with liquid', '20 min in the pan'],
        ['Lamb shoulder', A::Lamb, F::Roast, I::Intact, 2300, [self::CORE, self::BONE], [195, 203, self::SHRED], 'paper at 165 °F', '1 h wrapped'],
        ['Mutton ham', A::Mutton, F::Roast, I::Intact, 4800, [self::CORE, self::BONE], [190, 200, self::SHRED], 'foil at 170 °F', '1 to 3 h, insulated box'],
        ['Mutton shoulder', A::Mutton, F::Roast, I::Intact, 3400, [self::CORE, self::BONE], [198, 206, self::SHRED], 'foil at 170 °F', '1 h wrapped'],
        ['Goat leg', A::Goat, F::Roast, I::Intact, 2400, [self::CORE, self::BONE], [185, 195, self::SHRED], 'foil at 165 °F', '45 min wrapped'],
        ['Goat shoulder', A::Goat, F::Roast, I::Intact, 2000, [self::CORE, self::BONE], [195, 203, self::SHRED], 'foil at 165 °F', '45 min wrapped'],
        ['Pork belly, burnt ends', A::Pork, F::Cut, I::Intact, 60, [self::CORE], [195, 203, self::SHRED], 'covered pan with sauce', '10 min'],
        ['Pork belly, slab', A::Pork, F::Cut, I::Intact, 2500, [self::CORE], [190, 200, self::SHRED], 'foil boat', '20 min'],
        ['Pork butt', A::Pork, F::Roast, I::Intact, 3600, [self::CORE, self::BONE], [195, 205, self::SHRED], 'foil or paper at 165 °F', '1 to 4 h wrapped, insulated box'],
        ['Pork collar', A::Pork, F::Roast, I::Intact, 2200, [self::CORE], [185, 195, self::SHRED], 'paper at 165 °F', '45 min wrapped'],
        ['Pork hock', A::Pork, F::Cut, I::Intact, 600, [self::BONE], [190, 200, self::SHRED], 'none', '15 min'],
        ['Pork loin', A::Pork, F::Roast, I::Intact, 2000, [self::CORE], [140, 145, self::SLICE], 'none', '15 min under foil'],
        ['Pork ribs', A::Pork, F::Cut, I::Intact, 1300, [self::BETWEEN], [195, 203, self::BEND], 'foil at 165 °F, or never', '15 min under foil'],
        ['Pork tenderloin', A::Pork, F::Roast, I::Intact, 500, [self::CORE], [140, 145, self::SLICE], 'none', '10 min under foil'],
        ['Whole ham, injected', A::Pork, F::Roast, I::NonIntact, 7000, [self::CORE, self::BONE], [150, 160, self::SLICE], 'foil late', '30 min under foil'],
        ['Chicken, whole', A::Chicken, F::WholeBird, I::Intact, 1700, [self::BREAST, self::THIGH], [165, 175, 'juices run clear, the leg turns'], 'none', '10 min uncovered'],
        ['Chicken thighs', A::Chicken, F::Cut, I::Intact, 160, [self::BONE], [175, 185, 'pulls from the bone'], 'none', '5 min'],
        ['Chicken wings', A::Chicken, F::Cut, I::Intact, 90, [self::BONE], [175, 185, 'skin bites through'], 'none', 'none'],
        ['Duck', A::Duck, F::WholeBird, I::Intact, 2200, [self::BREAST, self::THIGH], [165, 180, 'the leg turns'], 'none', '15 min uncovered'],
        ['Goose', A::Goose, F::WholeBird, I::Intact, 4500, [self::BREAST, self::THIGH], [165, 180, 'the leg turns'], 'none', '20 min uncovered'],
        ['Guinea fowl', A::GameBird, F::WholeBird, I::Intact, 1300, [self::BREAST, self::THIGH], [165, 172, 'juices run clear'], 'none', '10 min'],
        ['Turkey, whole', A::Turkey, F::WholeBird, I::Intact, 5500, [self::BREAST, self::THIGH], [165, 175, 'the leg turns'], 'foil over the breast late', '30 min under foil'],
        ['Turkey breast', A::Turkey, F::Roast, I::Intact, 3100, [self::BREAST], [165, 168, self::SLICE], 'foil with butter at 140 °F', '20 min under foil'],
        ['Turkey legs', A::Turkey, F::Cut, I::Intact, 500, [self::BONE], [175, 185, 'pulls from the bone'], 'none', '10 min'],
        ['Venison haunch', A::Game, F::Roast, I::Intact, 2500, [self::CORE], [165, 170, self::SLICE], 'foil at 140 °F', '20 min under foil'],
        ['House sausage', A::Pork, F::Comminuted, I::NonIntact, 140, [self::LINK], [160, 165, 'firm, skin snaps'], 'none', 'none'],
        ['Lamb sausage', A::Lamb, F::Comminuted, I::NonIntact, 120, [self::LINK], [160, 165, 'firm, skin snaps'], 'none', 'none'],
        ['Meatloaf, smoked', A::Beef, F::Comminuted, I::NonIntact, 1500, [self::CORE], [160, 165, 'firm in the middle'], 'none', '15 min'],
        ['Smoked sausage log', A::Pork, F::CommercialReadyToEat, I::Intact, 1500, [self::LINK], [135, 145, 'hot through'], 'none', 'none'],
        ['Beans, smoked', A::None, F::Side, I::Intact, 4000, [self::PAN], [135, 165, 'bubbles in the middle'], 'none', 'none'],
        ['Slaw', A::None, F::Side, I::Intact, 3000, [self::PAN], [34, 41, 'cold'], 'none', 'none'],
        ['Braising liquid', A::None, F::Side, I::Intact, 2000, [self::PAN], [165, 185, 'boils'], 'none', 'none'],
        ['Cooked ham, bought in', A::Pork, F::CommercialReadyToEat, I::Intact, 4000, [self::CORE], [135, 145, 'hot through'], 'foil', '15 min'],
    ];
}
