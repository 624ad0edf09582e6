<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * What a requirement says.
 */
final readonly class RequirementWords
{
    public const LONGEST_TITLE = 300;

    public const LONGEST_TEXT = 20_000;

    public const LONGEST_ID = 200;

    /** Of details. */
    public const MOST_DETAILS = 60;

    /**
     * @param  string  $text Markdown
     * @param  ?string  $externalId what another program calls it
     * @param  array<string, string>  $details what other programs say of it beside, by name
     */
    public function __construct(
        public string $title,
        public string $text = '',
        public ?string $externalId = null,
        public array $details = [],
    ) {}

    /**
     * What comes with a casebook: no longer than a requirement may be.
     */
    public static function titled(string $title, string $text = ''): self
    {
        return new self(mb_substr(trim($title), 0, self::LONGEST_TITLE), mb_substr($text, 0, self::LONGEST_TEXT));
    }

    /**
     * Whether cases that fit the one fit the other too, as far as words tell: blanks and case do not count.
     */
    public function saysTheSameAs(self $other): bool
    {
        $plain = static fn(string $s): string => mb_strtolower(trim((string) preg_replace('/\s+/u', ' ', $s)));

        return $plain($this->title) === $plain($other->title) && $plain($this->text) === $plain($other->text);
    }

    /**
     * @return array<string, string> what is wrong, by field
     */
    public function faults(): array
    {
        $long = array_filter(
            $this->details,
            static fn(string $value, string $name): bool => mb_strlen($value) > self::LONGEST_TEXT || mb_strlen($name) > self::LONGEST_ID,
            \ARRAY_FILTER_USE_BOTH,
        );

        return array_filter([
            'title' => match (true) {
                '' === trim($this->title) => 'Say what must hold.',
                mb_strlen($this->title) > self::LONGEST_TITLE => \sprintf('At most %d characters.', self::LONGEST_TITLE),
                default => '',
            },
            'text' =>
                mb_strlen($this->text) > self::LONGEST_TEXT ? \sprintf('At most %s characters.', number_format(self::LONGEST_TEXT)) : '',
            'external_id' =>
                mb_strlen((string) $this->externalId) > self::LONGEST_ID ? \sprintf('At most %d characters.', self::LONGEST_ID) : '',
            'details' => match (true) {
                \count($this->details) > self::MOST_DETAILS => \sprintf('At most %d details.', self::MOST_DETAILS),
                [] !== $long => \sprintf('The detail %s is too long.', array_key_first($long)),
                default => '',
            },
        ]);
    }
}
