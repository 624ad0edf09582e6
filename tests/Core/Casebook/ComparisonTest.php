<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Casebook;

use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\Comparison;
use LucidStep\Core\Casebook\CustomField;
use LucidStep\Core\Casebook\MergedStep;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Casebook\StepPair;
use LucidStep\Core\Casebook\ThreeWay;
use PHPUnit\Framework\TestCase;

final class ComparisonTest extends TestCase
{
    public function test_each_step_is_found_again(): void
    {
        $from = [$this->s('Open the page'), $this->s('Choose the 11:00 sailing to Holm'), $this->s('Pay now'), $this->s('Read the code')];
        $to = [
            $this->s('Read the code'),
            $this->s('Open the page'),
            $this->s('Choose the 15:30 sailing to Holm'),
            $this->s('Wait a while'),
        ];
        self::assertSame(
            [[3, 0, 'moved'], [0, 1, 'same'], [1, 2, 'changed'], [2, null, 'removed'], [null, 3, 'added']],
            $this->flat(Comparison::steps($from, $to)),
        );
    }

    public function test_every_step_of_both_sides_stands_in_exactly_one_pair(): void
    {
        mt_srand(11);
        for ($i = 0; $i < 400; $i++) {
            [$from, $to] = [$this->some(), $this->some()];
            $pairs = Comparison::steps($from, $to);
            $a = array_values(array_filter(array_map(static fn(StepPair $p): ?int => $p->from, $pairs), is_int(...)));
            $b = array_values(array_filter(array_map(static fn(StepPair $p): ?int => $p->to, $pairs), is_int(...)));
            sort($a);
            self::assertSame([] === $from ? [] : range(0, \count($from) - 1), $a);
            self::assertSame([] === $to ? [] : range(0, \count($to) - 1), $b, 'in the order of the new side');
            foreach ($pairs as $pair) {
                if (null !== $pair->from && null !== $pair->to) {
                    self::assertSame($from[$pair->from]->equals($to[$pair->to]), 'changed' !== $pair->is);
                }
            }
        }
        self::assertSame([], Comparison::steps([], []));
    }

    public function test_what_only_one_side_changed_is_taken(): void
    {
        mt_srand(13);
        for ($i = 0; $i < 300; $i++) {
            [$base, $other] = [$this->some(), $this->some()];
            $b = new CaseText('T', steps: $base);
            $o = new CaseText('T2', 'goal', steps: $other);
            foreach ([[$b, $b, $b], [$b, $o, $o], [$o, $b, $o], [$o, $o, $b]] as [$result, $mine, $theirs]) {
                $merged = ThreeWay::of($b, $mine, $theirs);
                self::assertSame(0, $merged->conflicts());
                self::assertEquals($mine === $theirs ? $mine : $o, $merged->result());
            }
        }
    }

    public function test_changes_in_different_places_come_together(): void
    {
        $base = new CaseText('Title', 'Goal', '', '', [$this->s('One', '1'), $this->s('Two', '2'), $this->s('Three', '3')], null, [
            ['sha256' => 'a', 'name' => 'a.png'],
        ]);
        $mine = new CaseText(
            'My title',
            'Goal',
            '',
            '',
            [$this->s('One', 'one'), $this->s('Two', '2'), $this->s('Three', '3'), $this->s('Four')],
            null,
            [['sha256' => 'a', 'name' => 'a.png'], ['sha256' => 'b', 'name' => 'b.png']],
        );
        $theirs = new CaseText(
            'Title',
            'Their goal',
            '',
            '',
            [$this->s('Zero before it all'), $this->s('One, read carefully', '1'), $this->s('Three', '3')],
            'table',
            [],
        );
        $merged = ThreeWay::of($base, $mine, $theirs);
        self::assertSame(0, $merged->conflicts());
        $result = $merged->result();
        self::assertSame(['My title', 'Their goal', 'table'], [$result->title, $result->objective, $result->table]);
        self::assertSame(
            ['Zero before it all', 'One, read carefully', 'Three', 'Four'],
            array_map(static fn(Step $s): string => $s->action, $result->steps),
        );
        self::assertSame('one', $result->steps[1]->expected);
        self::assertSame(['b'], array_column($result->files, 'sha256'));
    }

    public function test_what_both_changed_differently_is_left_to_decide_and_nothing_is_dropped(): void
    {
        $base = new CaseText('Title', steps: [$this->s('Pay by card', 'Paid'), $this->s('Read the code')]);
        $mine = new CaseText('Mine', steps: [$this->s('Pay by card today', 'Paid'), $this->s('Read the code aloud')]);
        $theirs = new CaseText('Theirs', steps: [$this->s('Pay by voucher', 'Paid')]);
        $merged = ThreeWay::of($base, $mine, $theirs);
        self::assertSame(3, $merged->conflicts());
        self::assertSame(['conflict', 'conflict'], array_map(static fn(MergedStep $s): string => $s->outcome, $merged->steps));
        self::assertSame('Pay by voucher', $merged->steps[0]->theirs?->action);
        self::assertSame(
            ['Mine', 'Pay by card today', 'Read the code aloud'],
            [$merged->result()->title, $merged->result()->steps[0]->action, $merged->result()->steps[1]->action],
        );
    }

    public function test_custom_fields_take_what_fits_their_kind(): void
    {
        self::assertSame(
            ['2.5', '2027-06-14', 'High', 'yes', 'no', '', ' x'],
            [
                self::field('number')->take('2,5'),
                self::field('date')->take(' 2027-06-14 '),
                self::field('choice', ['Low', 'High'])->take('high'),
                self::field('yes_no')->take('TRUE'),
                self::field('yes_no')->take('0'),
                self::field('date')->take(''),
                ' ' . self::field('text')->take('x '),
            ],
        );
        foreach (
            [
                ['number', 'many'],
                ['date', '2027-02-30'],
                ['date', '14.6.2027'],
                ['choice', 'Middle'],
                ['yes_no', 'perhaps'],
                ['text', str_repeat('x', 2001)],
            ]
            as [$kind, $typed]
        ) {
            try {
                self::field($kind, ['Low'])->take($typed);
                self::fail("{$kind} took {$typed}");
            } catch (\DomainException $e) {
                self::assertStringContainsString('Risk', $e->getMessage());
            }
        }
        $this->expectException(\DomainException::class);
        self::field('text', [], true)->take('  ');
    }

    private function s(string $action, string $expected = ''): Step
    {
        return new Step($action, '', $expected);
    }

    /**
     * @return list<Step>
     */
    private function some(): array
    {
        $words = ['Open the page', 'Choose the sailing', 'Choose a sailing to Holm', 'Pay', 'Pay now', 'Read the code', ''];
        $steps = [];
        for ($n = mt_rand(0, 6); $n > 0; $n--) {
            $steps[] = $this->s($words[mt_rand(0, 6)], $words[mt_rand(0, 6)]);
        }

        return $steps;
    }

    /**
     * @param  list<StepPair>  $pairs
     *
     * @return list<array{?int, ?int, string}>
     */
    private function flat(array $pairs): array
    {
        return array_map(static fn(StepPair $p): array => [$p->from, $p->to, $p->is], $pairs);
    }

    /**
     * @param  'text'|'number'|'choice'|'date'|'yes_no'  $kind
     * @param  list<string>  $choices
     */
    private static function field(string $kind, array $choices = [], bool $required = false): CustomField
    {
        return new CustomField('f', 'Risk', $kind, $choices, $required);
    }
}
