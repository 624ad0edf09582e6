<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

/**
 * A field that a project added to its cases.
 */
final readonly class CustomField
{
    public const KINDS = ['text', 'number', 'date', 'choice', 'yes_no'];

    public const LONGEST = 2000;

    /**
     * @param  'text'|'number'|'date'|'choice'|'yes_no'  $kind
     * @param  list<string>  $choices of a choice
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $kind,
        public array $choices = [],
        public bool $required = false,
    ) {}

    /**
     * Takes a value as it was typed.
     *
     *
     * @throws \DomainException with a sentence for the person
     * @return string the value as it is kept: trimmed; dates as YYYY-MM-DD, yes and no in words, choices as they are spelt
     */
    public function take(string $typed): string
    {
        $value = trim($typed);
        if ('' === $value) {
            return $this->required ? throw new \DomainException("{$this->name} must be filled in.") : '';
        }

        return match ($this->kind) {
            'text' => mb_strlen($value) <= self::LONGEST
                ? $value
                : throw new \DomainException(\sprintf('%s: at most %d characters.', $this->name, self::LONGEST)),
            'number' => 1 === preg_match('/^-?\d{1,15}([.,]\d{1,6})?$/D', $value)
                ? str_replace(',', '.', $value)
                : throw new \DomainException("{$this->name}: \"" . mb_strimwidth($value, 0, 40, '…') . '" is not a number.'),
            'date' => $this->date($value),
            'choice' => $this->choice($value),
            'yes_no' => $this->yesNo($value),
        };
    }

    private function date(string $value): string
    {
        $date = \DateTimeImmutable::createFromFormat('!Y-m-d', $value);

        return false !== $date && $date->format('Y-m-d') === $value
            ? $value
            : throw new \DomainException("{$this->name}: \"" . mb_strimwidth($value, 0, 40, '…') . '" is not a date such as 2027-06-14.');
    }

    private function choice(string $value): string
    {
        foreach ($this->choices as $choice) {
            if (mb_strtolower($choice) === mb_strtolower($value)) {
                return $choice;
            }
        }

        throw new \DomainException(
            "{$this->name}: \"" .
                mb_strimwidth($value, 0, 40, '…') .
                '" is not one of: ' .
                implode(', ', \array_slice($this->choices, 0, 20)) .
                '.',
        );
    }

    private function yesNo(string $value): string
    {
        return match (mb_strtolower($value)) {
            'yes', 'true', '1', 'y' => 'yes',
            'no', 'false', '0', 'n' => 'no',
            default => throw new \DomainException("{$this->name}: yes or no."),
        };
    }
}
