<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Sessions;

use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\ObservedAct;
use LucidStep\Core\Sessions\ObserverBounds;
use LucidStep\Core\Sessions\PrivateField;
use LucidStep\Core\Sessions\Reached;
use PHPUnit\Framework\TestCase;

/**
 * What a page reports is text, cut, without what is never read, and no more than somebody can do.
 */
final class ObservedTest extends TestCase
{
    public function test_private_fields(): void
    {
        $of = json_decode((string) file_get_contents(__DIR__ . '/../../shared/private-fields.json'), true, 8, \JSON_THROW_ON_ERROR);
        foreach ($of['private'] as $called) {
            self::assertTrue(PrivateField::isCalledSo($called), $called);
        }
        foreach ($of['read'] as $called) {
            self::assertFalse(PrivateField::isCalledSo($called), $called);
        }
        foreach ($of['cards'] as $text) {
            self::assertTrue(PrivateField::isCardNumber($text), $text);
        }
        foreach ($of['numbers'] as $text) {
            self::assertFalse(PrivateField::isCardNumber($text), $text);
        }
        foreach ($of['addresses'] as [$address, $shown]) {
            self::assertSame($shown, PrivateField::withoutKeys($address));
        }
    }

    public function test_an_act_is_cut_put_right_in_time_and_says_nothing_private(): void
    {
        $act = self::act(['kind' => 'type', 'control' => str_repeat('n', 90), 'value' => str_repeat('v', 900), 'reached' => 'press']);
        self::assertSame([7_000, 80, 500, null], [$act->at, mb_strlen($act->control), mb_strlen((string) $act->value), $act->reached]);
        self::assertNull(self::act(['kind' => 'type', 'control' => 'New password', 'value' => 'x'])->value);
        self::assertNull(self::act(['kind' => 'type', 'control' => 'Long', 'value' => '4111 1111 1111 1111'])->value);
        self::assertSame('', self::act(['kind' => 'tick', 'control' => 'Bike', 'value' => ''])->value);
        // How a page was reached is one of a few words; another is as if it was typed.
        $visit = self::act([
            'kind' => 'visit',
            'page' => '/a?token=x',
            'reached' => '<b>',
            'opener' => 't0',
            'value' => 'x',
            'control' => 'y',
        ]);
        self::assertSame(
            [LineKind::Visit, Reached::Typed, 't0', '/a?token=…', '', null],
            [$visit->kind, $visit->reached, $visit->opener, $visit->page, $visit->control, $visit->value],
        );
    }

    /**
     * Of random arrivals no minute takes more than the bound, none of all, and what is left out is all that was not taken.
     */
    public function test_bounds(): void
    {
        mt_srand(7);
        for ($run = 0; $run < 200; ++$run) {
            [$bounds, $now, $came, $taken, $in] = [new ObserverBounds(), mt_rand(0, 10 ** 9), 0, 0, []];
            for ($i = 0; $i < 60; ++$i) {
                $now += mt_rand(0, 40_000);
                $came += $acts = mt_rand(0, 900);
                [$kept, $bounds] = $bounds->take($acts, $now);
                $taken += $kept;
                $in[intdiv($now, 60_000)] = ($in[intdiv($now, 60_000)] ?? 0) + $kept;
            }
            self::assertLessThanOrEqual(ObserverBounds::A_MINUTE, max($in));
            self::assertSame([$taken, $came - $taken], [$bounds->inAll, $bounds->leftOut]);
            self::assertLessThanOrEqual(ObserverBounds::IN_ALL, $taken);
        }
    }

    /**
     * @param  array<string, mixed>  $fields
     */
    private static function act(array $fields): ObservedAct
    {
        return ObservedAct::of(['id' => 'a', 'at' => 10_000, 'n' => 1, 'tab' => 't', 'page' => '/', ...$fields], 3_000);
    }
}
