<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Sessions;

use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\Reached;
use LucidStep\Core\Sessions\Sentence;
use LucidStep\Core\Sessions\SessionLine;
use LucidStep\Core\Sessions\Trimming;
use LucidStep\Core\Sessions\WhyDropped;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Of forty clicks the three that matter. A stretch is written as words: `A` opens a page, `>B` a press led to it, `<A` back, `~D` a
 * redirect, `s>R` sending a form led to it, `n=2` types, `r:Holm` chooses, `Pay` presses, `send` sends, `!` trouble, `"words"` notes, `[]`
 * captures, and `*` before one pins it.
 */
final class TrimmingTest extends TestCase
{
    /**
     * @return iterable<string, array{string, string}>
     */
    public static function stretches(): iterable
    {
        yield 'a way round that came back' => ['A Add Help >H <A Pay', 'A Add Pay'];
        yield 'a way round on which something was done' => ['A bike >B Add <A Pay', 'A bike >B Add <A Pay'];
        yield 'typed anew at once' => ['A n=2 n=3 Pay', 'A n=3 Pay'];
        yield 'typed anew after a press' => ['A n=2 Check n=3', 'A n=2 Check n=3'];
        yield 'chosen anew, another control between' => ['A r:Holm n=2 r:Farra Pay', 'A n=2 r:Farra Pay'];
        yield 'presses are no repeats' => ['A + + + Pay', 'A + + + Pay'];
        yield 'left by a redirect' => ['A send s>R ~D Pay', 'A send ~D Pay'];
        yield 'left by two redirects' => ['A send s>R ~S ~D Pay', 'A send ~D Pay'];
        yield 'trouble on the page that redirected' => ['A send s>R ! ~D Pay', 'A send s>R ! ~D Pay'];
        yield 'begins at the last page whose address was typed' => ['A Add Pay B Cut', 'B Cut'];
        yield 'pinned before the start, with the page it stands on' => ['X Go *Press Y Cut', 'X *Press Y Cut'];
        yield 'what was entered would be lost' => ['A n=2 Help >H <A Pay', 'A n=2 Help >H <A Pay'];
        yield 'what was sent is not' => ['A n=2 send Help >H <A Pay', 'A n=2 send Pay'];
        yield 'words on the way stay, and the way with them' => ['A Help >H "odd" <A Pay', 'A Help >H "odd" <A Pay'];
        yield 'trouble stays' => ['A Help >H ! <A Pay', 'A Help >H ! <A Pay'];
        yield 'pinned on the way' => ['A Help *>H <A Pay', 'A Help *>H <A Pay'];
        yield 'pictures without words go, a pinned one stays' => ['A [] Add *[] Pay', 'A Add *[] Pay'];
        yield 'a way round within a way round' => ['A Help >H More >M <H <A Pay', 'A Pay'];
        yield 'a form that was sent led away, and what led back may be the fault' => [
            'A n=2 send s>P Back >A n=2 Pay',
            'A n=2 send s>P Back >A n=2 Pay',
        ];
        yield 'two ways round' => ['A Help >H <A Add Terms >T <A Pay', 'A Add Pay'];
        yield 'a reload is no way round' => ['A ^A Pay', 'A ^A Pay'];
        yield 'nothing observed' => ['"one" [] "two"', '"one" "two"'];
        yield 'an issue at the end is what is marked' => ['A Add Help >H <A Pay "it broke"', 'A Add Pay "it broke"'];
    }

    #[DataProvider('stretches')]
    public function test_what_stays(string $stretch, string $stays): void
    {
        $lines = self::lines($stretch);
        self::assertSame($stays, self::words($stretch, Trimming::propose($lines)));
    }

    public function test_a_stretch_in_mid_page_takes_in_its_opening_visit_and_nothing_else_before(): void
    {
        $stretch = 'A Add More Pay';
        $lines = self::lines($stretch);
        $said = Trimming::propose($lines, 2);
        self::assertSame(['1', '3', '4'], array_map(strval(...), array_keys(array_filter($said, is_null(...)))));
    }

    public function test_a_tab_that_a_press_opened_leads_back_to_the_page_of_the_press_and_one_made_by_hand_does_not(): void
    {
        $lines = static fn(Reached $reached): array => [
            new SessionLine('1', LineKind::Visit, 0, page: '/a', tab: 'one', reached: Reached::Typed),
            new SessionLine('2', LineKind::Press, 1, page: '/a', tab: 'one', control: 'Print'),
            new SessionLine('3', LineKind::Visit, 2, page: '/b', tab: 'two', reached: $reached, opener: 'one'),
            new SessionLine('4', LineKind::Press, 3, page: '/b', tab: 'two', control: 'Go'),
        ];
        self::assertSame([null, null, null, null], array_values(Trimming::propose($lines(Reached::PressedTab))));
        self::assertSame(
            [WhyDropped::BeforeTheStart, WhyDropped::BeforeTheStart, null, null],
            array_values(Trimming::propose($lines(Reached::HandMadeTab))),
        );
    }

    public function test_what_holds_for_any_session(): void
    {
        mt_srand(20_261_130);
        for ($n = 0; $n < 20_000; ++$n) {
            $lines = self::random(2 + ($n % 24));
            $said = Trimming::propose($lines);
            $kept = array_values(
                array_filter($lines, static fn(SessionLine $l): bool => \array_key_exists($l->id, $said) && null === $said[$l->id]),
            );
            $told = static fn(): string => implode(
                ' ',
                array_map(static fn(SessionLine $l): string => "{$l->tab} {$l->reached?->value} " . Sentence::of($l), $lines),
            ) . " ({$n})";
            // Twice changes nothing.
            $again = Trimming::propose($kept);
            if ([] !== array_filter($again, static fn(?WhyDropped $why): bool => null !== $why)) {
                self::fail('Twice is not once: ' . $told());
            }
            $pages = [];
            foreach ($kept as $line) {
                if (LineKind::Visit === $line->kind) {
                    $pages[$line->tab] = $line->page;
                } elseif ($line->standsOnPage() && ($pages[$line->tab] ?? null) !== $line->page) {
                    self::fail("Its page is not open: {$line->id} of " . $told());
                }
            }
            foreach ($lines as $i => $line) {
                if (($line->pinned || $i === \count($lines) - 1) && !\in_array($line, $kept, true)) {
                    self::fail("It had to stay: {$line->id} of " . $told());
                }
            }
        }
        $this->expectNotToPerformAssertions();
    }

    /**
     * @return list<SessionLine>
     */
    private static function lines(string $stretch): array
    {
        $lines = [];
        $page = '';
        foreach (self::parts($stretch) as $i => $word) {
            $plain = ltrim($word, '*');
            $reached = match (true) {
                str_starts_with($plain, 's>') => Reached::Submit,
                str_starts_with($plain, '>') => Reached::Press,
                str_starts_with($plain, '<') => Reached::Back,
                str_starts_with($plain, '~') => Reached::Redirect,
                str_starts_with($plain, '^') => Reached::Reload,
                1 === preg_match('/^[A-Z]$/', $plain) => Reached::Typed,
                default => null,
            };
            if (null !== $reached) {
                $page = substr($plain, -1);
            }
            $make = static fn(
                LineKind $kind,
                string $words = '',
                ?Reached $reached = null,
                string $control = '',
                ?string $value = null,
            ): SessionLine => new SessionLine(
                (string) ($i + 1),
                $kind,
                $i * 1000,
                $words,
                $plain !== $word,
                $kind->isObserved() ? $page : null,
                $kind->isObserved() ? 'tab' : null,
                $reached,
                null,
                $control,
                $value,
            );
            $lines[] = match (true) {
                null !== $reached => $make(LineKind::Visit, '', $reached),
                str_starts_with($plain, '"') => $make(LineKind::Issue, trim($plain, '"')),
                '[]' === $plain => $make(LineKind::Capture),
                '!' === $plain => $make(LineKind::Trouble, 'It broke'),
                'send' === $plain => $make(LineKind::Submit),
                1 === preg_match('/^(\w+)=(\w*)$/', $plain, $m) => $make(LineKind::Type, control: $m[1], value: $m[2]),
                1 === preg_match('/^(\w+):(\w*)$/', $plain, $m) => $make(LineKind::Choose, control: $m[1], value: $m[2]),
                default => $make(LineKind::Press, control: $plain),
            };
        }

        return $lines;
    }

    /**
     * @param  array<string, ?WhyDropped>  $said
     */
    private static function words(string $stretch, array $said): string
    {
        $parts = self::parts($stretch);

        return implode(
            ' ',
            array_map(static fn(int|string $id): string => $parts[(int) $id - 1], array_keys(array_filter($said, is_null(...)))),
        );
    }

    /**
     * @return list<string>
     */
    private static function parts(string $stretch): array
    {
        preg_match_all('/"[^"]*"|\S+/', $stretch, $m);

        return $m[0];
    }

    /**
     * @return list<SessionLine> of two tabs on few pages, so that much comes back
     */
    private static function random(int $count): array
    {
        $lines = [];
        /** @var array<string, string> $pages */
        $pages = [];
        $looked = null;
        $any = static fn(array $of): mixed => $of[mt_rand(0, \count($of) - 1)];
        for ($i = 0; $i < $count; ++$i) {
            $tab = mt_rand(0, 5) > 0 ? 'one' : 'two';
            $kind = isset($pages[$tab])
                ? $any([LineKind::Visit, LineKind::Visit, LineKind::Press, LineKind::Press, ...LineKind::cases()])
                : $any([LineKind::Visit, LineKind::Visit, LineKind::Note]);
            $opener = null;
            $reached = LineKind::Visit === $kind ? $any(Reached::cases()) : null;
            if (LineKind::Visit === $kind) {
                $other = 'one' === $tab ? 'two' : 'one';
                $isNew = \in_array($reached, [Reached::PressedTab, Reached::HandMadeTab], true);
                $reached = isset($pages[$tab]) === $isNew ? Reached::Typed : $reached;
                $reached = Reached::PressedTab === $reached && !isset($pages[$other]) ? Reached::HandMadeTab : $reached;
                $opener = Reached::PressedTab === $reached ? $other : null;
                $pages[$tab] = Reached::Reload === $reached && isset($pages[$tab]) ? $pages[$tab] : $any(['/a', '/b', '/c']);
            }
            $seen = $kind->isObserved();
            $lines[] = new SessionLine(
                "l{$i}",
                $kind,
                $i,
                LineKind::Capture === $kind && mt_rand(0, 1) > 0 ? '' : 'words',
                0 === mt_rand(0, 11),
                $seen ? $pages[$tab] ?? null : null,
                $seen ? ($looked = $tab) : $looked,
                $reached,
                $opener,
                $any(['Name', 'Total']),
                $any(['1', '2']),
            );
        }

        return $lines;
    }
}
