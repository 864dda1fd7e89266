<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Site;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Wording\ClockFace;
use Verjuicer\App\Platform\Wording\Language;
use Verjuicer\App\Platform\Wording\LengthUnit;
use Verjuicer\App\Platform\Wording\WeightUnit;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Core\Ruleset\StricterLimits;

/** A kitchen with its present settings; only `Settings` changes it, and records the old values. */
#[ORM\Entity]
#[ORM\Table(name: 'site')]
class Site
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    #[ORM\Column(type: 'text')]
    public string $address = '';

    #[ORM\Column(type: 'text')]
    public string $permit = '';

    #[ORM\Column(length: 2)]
    public WeightUnit $weightUnit = WeightUnit::Kilograms;

    #[ORM\Column(length: 2)]
    public LengthUnit $lengthUnit = LengthUnit::Centimeters;

    /** Of its papers and alarms, and of pages where neither person nor browser says another. */
    #[ORM\Column(length: 2)]
    public Language $language = Language::English;

    #[ORM\Column(length: 2)]
    public ClockFace $clock = ClockFace::Hours24;

    /** "06:00" on its wall: when the screen on the wall is bright again. */
    #[ORM\Column(length: 5)]
    public string $opensAt = '06:00';

    #[ORM\Column(length: 5)]
    public string $closesAt = '21:00';

    /** @var array<string, int> seconds by the names of `StricterLimits` */
    #[ORM\Column(type: 'json')]
    public array $houseLimits = [];

    /** When something a record is judged by was last changed; null where it never was. */
    #[ORM\Column(type: 'datetimetz_immutable', nullable: true)]
    public ?\DateTimeImmutable $changedAt = null;

    #[ORM\Column(nullable: true)]
    public ?string $nextRuleSet = null;

    #[ORM\Column(type: 'datetimetz_immutable', nullable: true)]
    public ?\DateTimeImmutable $nextRuleSetFrom = null;

    /** Whether managers have to log in with a second factor. */
    #[ORM\Column]
    public bool $asksSecondFactor = false;

    /** A kitchen to practise in: said on every page, and no person of it sees another site. */
    #[ORM\Column]
    public bool $isPractice = false;

    #[ORM\Column(length: 8)]
    public AllergenList $allergenList = AllergenList::Us9;

    /** Whether the menu carries the consumer advisory, so that food undercooked by intent may be served. */
    #[ORM\Column]
    public bool $hasAdvisory = false;

    /** Whether it serves a highly susceptible population: then nothing is undercooked by intent. */
    #[ORM\Column]
    public bool $isSusceptible = false;

    /** How many months every record is kept at the least. */
    #[ORM\Column]
    public int $keepMonths = 24;

    /** Its basis: a section of the local code, an order, a plan. */
    #[ORM\Column(type: 'text')]
    public string $keepBasis = '';

    /** Receivers of the daily digest by mail: several addresses, separated by commas. */
    #[ORM\Column(type: 'text')]
    public string $sealMail = '';

    /** "04:00" on its wall: from when the day before can be signed as a whole. */
    #[ORM\Column(length: 5)]
    public string $signsFrom = '04:00';

    /** Whether a day is signed by two. */
    #[ORM\Column]
    public bool $asksSecondSignature = false;

    private ?TimeZone $zone = null;

    /** @param string $ruleSet the edition adopted last, once the one announced after it is in force */
    public function __construct(
        #[ORM\Column] public string $name,
        #[ORM\Column] public string $timezone,
        #[ORM\Column(length: 1)] public TemperatureUnit $unit,
        #[ORM\Column(nullable: true)] public ?int $elevationM,
        #[ORM\Column] public string $ruleSet,
        #[ORM\ManyToOne(cascade: ['persist'])]
        #[ORM\JoinColumn(nullable: false)]
        public ?Organisation $organisation = null,
    ) {
        $this->id = Uuid::v7();
        $this->organisation ??= new Organisation($name);
    }

    public function mayUndercook(): bool
    {
        return $this->hasAdvisory && !$this->isSusceptible;
    }

    public function zone(): TimeZone
    {
        return $this->zone?->name === $this->timezone ? $this->zone : ($this->zone = TimeZone::named($this->timezone));
    }

    public function house(): StricterLimits
    {
        return new StricterLimits($this->houseLimits);
    }

    /** The edition of the code that is adopted at this moment. */
    public function ruleSetAt(Instant $at): string
    {
        return $this->nextRuleSet !== null && $at->epoch >= ($this->nextRuleSetFrom?->getTimestamp() ?? \PHP_INT_MAX)
            ? $this->nextRuleSet
            : $this->ruleSet;
    }
}
