<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Facebook\WebDriver\WebDriverKeys as Key;

/**
 * Browser tests that walk.
 */
abstract class WalkTestCase extends BrowserTestCase
{
    protected function begin(): Tester
    {
        return $this->tester()->signIn('tobias')->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5');
    }

    /**
     * The browser shares this very tab without asking.
     */
    protected function sharing(Tester $me): void
    {
        $me->script(
            'const m = navigator.mediaDevices; const real = m.getDisplayMedia.bind(m); m.getDisplayMedia = () => ' .
                'real({ video: true, preferCurrentTab: true });',
        );
    }

    /**
     * Drags over a picture, in shares of its size.
     */
    protected function drag(Tester $me, float $x, float $y, float $toX, float $toY, string $on = '.mark canvas'): void
    {
        /** @var array{x: float, y: float, width: float, height: float} $area */
        $area = (array) $me->script('return document.querySelector(arguments[0]).getBoundingClientRect().toJSON()', $on);
        $at = static fn(string $type, float $px, float $py): array => [
            'type' => $type,
            'x' => $area['x'] + $area['width'] * $px,
            'y' => $area['y'] + $area['height'] * $py,
            'button' => 'left',
            'buttons' => 1,
            'clickCount' => 1,
        ];
        $me->tell('Input.dispatchMouseEvent', $at('mousePressed', $x, $y));
        $me->tell('Input.dispatchMouseEvent', $at('mouseMoved', ($x + $toX) / 2, ($y + $toY) / 2));
        $me->tell('Input.dispatchMouseEvent', $at('mouseMoved', $toX, $toY));
        $me->tell('Input.dispatchMouseEvent', $at('mouseReleased', $toX, $toY));
        usleep(120_000);
    }

    protected function stored(string $sha256): string
    {
        return getenv('LARAVEL_STORAGE_PATH') . '/app/private/evidence/' . substr($sha256, 0, 2) . "/{$sha256}";
    }
}
