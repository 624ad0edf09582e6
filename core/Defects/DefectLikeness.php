<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

use LucidStep\Core\Text\Words;

/**
 * How much two defects tell of the same, 0 to 1 (rules of the job, 7): words of what happened 0.45, words of "actual" 0.25, same case
 * 0.1, same step 0.15, same component 0.05. Empty never equals empty.
 */
final readonly class DefectLikeness
{
    /** From here on one is offered. */
    public const OFFERED = 0.35;

    private const TITLE = 0.45;

    private const ACTUAL = 0.25;

    private const CASE_ = 0.1;

    private const STEP = 0.15;

    private const COMPONENT = 0.05;

    private Words $title;

    private Words $actual;

    /**
     * @param  string  $caseTitle of the case it was met in: a title begins with it, and says nothing by it
     * @param  ?string  $case     the case it was met in
     * @param  ?string  $step     what its step says to do
     */
    public function __construct(
        string $title,
        string $actual,
        string $caseTitle = '',
        public ?string $case = null,
        public ?string $step = null,
        public ?string $component = null,
    ) {
        $this->title = Words::of(self::happened($title, $caseTitle));
        $this->actual = Words::of($actual);
    }

    public function with(self $other): float
    {
        return self::TITLE * $this->title->likeness($other->title) +
            self::ACTUAL * $this->actual->likeness($other->actual) +
            ($this->sameCase($other) ? self::CASE_ : 0.0) +
            ($this->sameStep($other) ? self::STEP : 0.0) +
            ($this->sameComponent($other) ? self::COMPONENT : 0.0);
    }

    public function sameCase(self $other): bool
    {
        return null !== $this->case && $this->case === $other->case;
    }

    public function sameStep(self $other): bool
    {
        return $this->sameCase($other) && null !== $this->step && $this->step === $other->step;
    }

    public function sameComponent(self $other): bool
    {
        return null !== $this->component && $this->component === $other->component;
    }

    /**
     * @return list<string> words that both say of what happened, without their endings
     */
    public function shared(self $other): array
    {
        return array_values(array_unique([...$this->title->shared($other->title), ...$this->actual->shared($other->actual)]));
    }

    /**
     * @return list<string> all it says of what happened, without endings: others that are like it have one of them
     */
    public function words(): array
    {
        return array_values(array_unique([...$this->title->all(), ...$this->actual->all()]));
    }

    /**
     * A title without the case that it begins with, which {@see Draft::title()} puts there, cut where it is long.
     */
    private static function happened(string $title, string $caseTitle): string
    {
        $parts = preg_split('/ – /u', $title, 2) ?: [$title];
        $begin = rtrim(trim($parts[0]), '…');

        return isset($parts[1]) && '' !== $begin && str_starts_with(mb_strtolower(trim($caseTitle)), mb_strtolower($begin))
            ? $parts[1]
            : $title;
    }
}
