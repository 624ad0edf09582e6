<?php

declare(strict_types=1);

namespace LucidStep\Core\Text;

/**
 * The words of a text as they count for likeness: lower-cased, split at anything not a letter or digit, stop words
 * dropped, the endings -s, -es, -ed and -ing cut from words over four letters (rules of the job, 7).
 */
final readonly class Words
{
    private const STOP = [
        'a',
        'an',
        'and',
        'are',
        'as',
        'at',
        'be',
        'but',
        'by',
        'for',
        'from',
        'has',
        'have',
        'in',
        'is',
        'it',
        'its',
        'not',
        'of',
        'on',
        'or',
        'that',
        'the',
        'then',
        'there',
        'this',
        'to',
        'was',
        'were',
        'when',
        'with',
    ];

    /**
     * @param  array<string, true>  $set
     */
    private function __construct(private array $set) {}

    public static function of(string $text): self
    {
        $set = [];
        foreach (preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($text), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            if (!\in_array($word, self::STOP, true)) {
                $set[self::stem($word)] = true;
            }
        }

        return new self($set);
    }

    public static function stem(string $word): string
    {
        return mb_strlen($word) > 4 ? (string) preg_replace('/(?:ing|es|ed|s)$/Du', '', $word) : $word;
    }

    public function isEmpty(): bool
    {
        return [] === $this->set;
    }

    /**
     * @return list<string> in the order in which they first stand, without their endings
     */
    public function all(): array
    {
        return array_map(strval(...), array_keys($this->set));
    }

    /**
     * @return list<string> the words that both have
     */
    public function shared(self $other): array
    {
        return array_map(strval(...), array_keys(array_intersect_key($this->set, $other->set)));
    }

    /**
     * Jaccard: words shared ÷ all words, 0 to 1. Empty never equals empty.
     */
    public function likeness(self $other): float
    {
        $all = \count($this->set + $other->set);

        return 0 === $all ? 0.0 : \count(array_intersect_key($this->set, $other->set)) / $all;
    }
}
