<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** The cut that the name of a product tells, in English or Spanish: its shape and fat, for forecasts and yields. */
enum NamedCut
{
    case BeefRibs;
    case Ribs;
    case Brisket;
    case Belly;
    case Flat;
    case Sausage;
    case Marbled; // a shoulder, a cheek: as fat as a brisket, and round
    case Other;

    public static function of(?string $name): self
    {
        $name = mb_strtolower($name ?? '');
        $says = static fn (string $pattern): bool => preg_match('/'.$pattern.'/u', $name) === 1;

        return match (true) {
            $says(
                '\b(beef|short|plate) ribs?\b|\bcostillas? (cortas? )?de res\b|\bcostillas? cortas?\b',
            ) => self::BeefRibs,
            $says('\bribs?\b|\bcostillas?\b') => self::Ribs,
            $says('brisket|\bpecho de res\b') => self::Brisket,
            $says('belly|\bpanza\b|\bpanceta\b') => self::Belly,
            $says('sausage|\bsalchich|\bchorizo|\blonganiza') => self::Sausage,
            $says('butt|shoulder|rib|cheek|\bespaldilla|\bpaleta\b|\bcachete|\bcabeza de lomo\b') => self::Marbled,
            $says('flat|\bplano\b') => self::Flat,
            default => self::Other,
        };
    }

    public function isRibs(): bool
    {
        return $this === self::BeefRibs || $this === self::Ribs;
    }

    /** Whether fat runs through the meat. */
    public function isMarbled(): bool
    {
        return match ($this) {
            self::BeefRibs, self::Ribs, self::Brisket, self::Belly, self::Sausage, self::Marbled => true,
            self::Flat, self::Other => false,
        };
    }
}
