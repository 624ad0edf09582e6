<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * What a page that is observed reports of one act. Whatever it says is text, cut to what is kept, and without what is never read.
 */
final readonly class ObservedAct
{
    public const LONGEST_PAGE = 1000;

    public const LONGEST_TEXT = 500;

    private function __construct(
        public string $id,
        public LineKind $kind,
        /** When it was done, by the server's clock, in ms since 1970. */
        public int $at,
        /** Which of its acts it was, by the page. */
        public int $counter,
        public string $words,
        public string $page,
        public string $tab,
        public ?Reached $reached,
        public ?string $opener,
        public string $control,
        public ?string $value,
    ) {}

    /**
     * @param  array<string, mixed>  $act as the page tells it: id, kind, at in ms since 1970, n, tab and page, and what there is of words,
     *     reached, opener, control and value
     * @param  int  $ahead how far the clock of the page is ahead, in ms
     */
    public static function of(array $act, int $ahead): self
    {
        $kind = LineKind::from(self::text($act, 'kind'));
        $isVisit = LineKind::Visit === $kind;
        $control = self::cut(self::text($act, 'control'), Sentence::LONGEST);
        $value = \is_string($act['value'] ?? null) ? $act['value'] : null;
        $isPrivate = null !== $value && (PrivateField::isCalledSo($control) || PrivateField::isCardNumber($value));
        $opener = self::text($act, 'opener');

        return new self(
            self::text($act, 'id'),
            $kind,
            self::number($act, 'at') - $ahead,
            self::number($act, 'n'),
            self::cut(self::text($act, 'words'), self::LONGEST_TEXT),
            self::cut(PrivateField::withoutKeys(self::text($act, 'page')), self::LONGEST_PAGE),
            self::text($act, 'tab'),
            $isVisit ? Reached::tryFrom(self::text($act, 'reached')) ?? Reached::Typed : null,
            $isVisit && '' !== $opener ? $opener : null,
            $isVisit ? '' : $control,
            null === $value || $isPrivate || $isVisit ? null : self::cut($value, self::LONGEST_TEXT),
        );
    }

    /**
     * @param  array<string, mixed>  $act
     */
    private static function text(array $act, string $name): string
    {
        return \is_string($act[$name] ?? null) ? $act[$name] : '';
    }

    /**
     * @param  array<string, mixed>  $act
     */
    private static function number(array $act, string $name): int
    {
        return \is_int($act[$name] ?? null) ? $act[$name] : 0;
    }

    private static function cut(string $text, int $most): string
    {
        return mb_strlen($text) > $most ? mb_substr($text, 0, $most - 1) . '…' : $text;
    }
}
