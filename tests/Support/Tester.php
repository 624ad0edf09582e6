<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Exception\ElementClickInterceptedException as ClickIntercepted;
use Facebook\WebDriver\Exception\ElementNotInteractableException as NotInteractable;
use Facebook\WebDriver\Exception\NoSuchElementException;
use Facebook\WebDriver\Exception\NoSuchWindowException;
use Facebook\WebDriver\Exception\StaleElementReferenceException;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteExecuteMethod;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Facebook\WebDriver\WebDriverSelect;
use PHPUnit\Framework\Assert;

/**
 * A person at a browser of their own.
 */
final class Tester
{
    use TesterSkills;

    /** Seconds; nobody waits for them where all is well, and a busy machine may need them. */
    private const PATIENCE = 30.0;

    private readonly string $profile;

    private readonly RemoteWebDriver $browser;

    private bool $dark = false;

    public function __construct(
        string $driver,
        private readonly string $base,
        int $width = 1280,
        int $height = 800,
        bool $dark = false,
        ?string $profile = null,
    ) {
        $this->profile = $profile ?? sys_get_temp_dir() . '/lucid-step-' . bin2hex(random_bytes(6));
        $options = new ChromeOptions();
        $options->setBinary('/usr/bin/chromium');
        $options->addArguments([
            '--headless=new',
            '--no-sandbox',
            '--disable-gpu',
            '--disable-quic',
            '--no-first-run',
            '--disable-background-networking',
            '--disable-component-update',
            '--disable-sync',
            '--disable-dev-shm-usage',
            '--window-size=1280,943',
            '--auto-accept-this-tab-capture',
            '--auto-select-tab-capture-source-by-title=Lucid Step',
            '--use-fake-device-for-media-stream',
            "--user-data-dir={$this->profile}",
        ]);
        $wanted = DesiredCapabilities::chrome();
        $wanted->setCapability(ChromeOptions::CAPABILITY, $options);
        $this->browser = RemoteWebDriver::create($driver, $wanted, 30_000, 60_000);
        $this->look($width, $height, $dark);
    }

    /**
     * Becomes somebody else at the same browser: a new tab, nothing on the device, nobody signed in. Beginning a browser
     * takes longer than most tests.
     */
    public function renew(int $width, int $height, bool $dark): self
    {
        $old = $this->browser->getWindowHandles();
        $this->browser->switchTo()->newWindow();
        $new = $this->browser->getWindowHandle();
        foreach ($old as $handle) {
            try {
                $this->browser->switchTo()->window($handle)->close();
            } catch (NoSuchWindowException) {
                // A small window goes with the page that drew it.
            }
        }
        $this->browser->switchTo()->window($new);
        $this->tell('Storage.clearDataForOrigin', ['origin' => $this->base, 'storageTypes' => 'all']);
        $this->tell('Network.clearBrowserCookies');
        $this->tell('Browser.resetPermissions');
        $this->browser->manage()->getLog('browser');
        $this->look($width, $height, $dark);

        return $this;
    }

    private function look(int $width, int $height, bool $dark): void
    {
        $this->dark = $dark;
        $this->tell('Emulation.setDeviceMetricsOverride', [
            'width' => $width,
            'height' => $height,
            'deviceScaleFactor' => 1,
            'mobile' => false,
        ]);
        $this->tell('Browser.grantPermissions', ['permissions' => ['clipboardReadWrite', 'clipboardSanitizedWrite']]);
        $this->tell('Emulation.setEmulatedMedia', ['features' => $dark ? [['name' => 'prefers-color-scheme', 'value' => 'dark']] : []]);
    }

    /**
     * Ends the browser as a power cut would; what it kept on the device stays.
     *
     * @return string the profile, to begin again with
     */
    public function kill(): string
    {
        exec('pkill -9 -f ' . escapeshellarg("user-data-dir={$this->profile}"));
        usleep(400_000);
        @array_map(unlink(...), glob("{$this->profile}/Singleton*") ?: []);

        return $this->profile;
    }

    public function leave(): void
    {
        $this->browser->quit();
        exec('rm -rf ' . escapeshellarg($this->profile));
    }

    public function open(string $path): self
    {
        $this->browser->get(str_starts_with($path, '/') ? $this->base . $path : $path);

        return $this;
    }

    /**
     * Goes to another page of the application without loading it anew, as a link does.
     */
    public function go(string $path): self
    {
        $this->script(
            <<<'JS'
            const state = { ...history.state, back: history.state?.current ?? null, current: arguments[0],
                forward: null, position: (history.state?.position ?? 0) + 1 };
            history.pushState(state, '', arguments[0]);
            dispatchEvent(new PopStateEvent('popstate', { state }));
            JS
            ,
            $path,
        );

        return $this;
    }

    /**
     * @param  string  $to where to go afterwards; those in several projects choose one else
     */
    public function signIn(string $name, string $to = ''): self
    {
        $this->open('/sign-in' . ('' === $to ? '' : "?to={$to}"))
            ->see('This is a demo')
            ->waitFor('#email');
        $this->type('#email', "{$name}@skerrywick.test")
            ->type('#password', (string) (getenv('LUCID_DEMO_PASSWORD') ?: 'lantern-on-the-path'))
            ->press(WebDriverKeys::ENTER);
        $this->waitFor('header nav');

        return $this;
    }

    /**
     * Presses keys, one after another, wherever the focus is.
     */
    public function press(string ...$keys): self
    {
        foreach ($keys as $key) {
            $this->browser->getKeyboard()->sendKeys($key);
            usleep(60_000);
        }

        return $this;
    }

    public function chord(string $modifier, string $key): self
    {
        $this->browser->getKeyboard()->pressKey($modifier)->sendKeys($key)->releaseKey($modifier);
        usleep(80_000);

        return $this;
    }

    public function type(string $selector, string $text): self
    {
        // Chosen and written over, as a person does: what is only cleared may be drawn again before the first key.
        for ($try = 1; $try <= 3; $try++) {
            $field = $this->waitFor($selector);
            $this->browser->executeScript('arguments[0].focus(); arguments[0].select()', [$field]);
            $this->browser->getKeyboard()->sendKeys('' === $text ? WebDriverKeys::BACKSPACE : $text);
            // A page that was still being drawn put its own words back in between: a person would see that and write again.
            $now = (string) $this->script('return arguments[0].isConnected ? arguments[0].value : ""', $field);
            if ('' === $text || $now === $text || !str_ends_with($now, $text)) {
                break;
            }
        }

        return $this;
    }

    /**
     * Chooses in a select by what its option says.
     */
    public function select(string $selector, string $option): self
    {
        (new WebDriverSelect($this->waitFor("select{$selector}")))->selectByVisibleText($option);
        usleep(80_000);

        return $this;
    }

    public function choose(string $selector, string $path): self
    {
        $this->waitFor($selector)->sendKeys($path);

        return $this;
    }

    public function click(string $selector, string $words = ''): self
    {
        $this->until("something to click: {$selector} {$words}", function () use ($selector, $words): bool {
            // Found in one call and clicked as a person does: asking each element by itself takes most of a test's time.
            $found = $this->script(
                'const [selector, words] = arguments; return [...document.querySelectorAll(selector)].find((e) => ' .
                    "e.checkVisibility({ visibilityProperty: true }) && (words === '' || e.innerText.includes(words))) ?? null",
                $selector,
                $words,
            );
            if (\is_array($found)) {
                (new RemoteWebElement(new RemoteExecuteMethod($this->browser), (string) array_values($found)[0], true))->click();

                return true;
            }

            return false;
        });

        return $this;
    }

    /**
     * Draws with the pressed mouse over something, from one point to another: parts of its width and height.
     */
    public function drag(float $x, float $y, float $toX, float $toY, string $on = '.mark canvas'): self
    {
        /** @var array{x: float, y: float, width: float, height: float} $area */
        $area = (array) $this->script('return document.querySelector(arguments[0]).getBoundingClientRect().toJSON()', $on);
        $at = static fn(string $type, float $px, float $py): array => [
            'type' => $type,
            'x' => $area['x'] + $area['width'] * $px,
            'y' => $area['y'] + $area['height'] * $py,
            'button' => 'left',
            'buttons' => 1,
            'clickCount' => 1,
        ];
        $this->tell('Input.dispatchMouseEvent', $at('mousePressed', $x, $y));
        $this->tell('Input.dispatchMouseEvent', $at('mouseMoved', ($x + $toX) / 2, ($y + $toY) / 2));
        $this->tell('Input.dispatchMouseEvent', $at('mouseMoved', $toX, $toY));
        $this->tell('Input.dispatchMouseEvent', $at('mouseReleased', $toX, $toY));
        usleep(120_000);

        return $this;
    }

    public function see(string $text, string $in = 'body'): self
    {
        $this->until("to see \"{$text}\" in {$in}", fn(): bool => str_contains($this->text($in), $text));

        return $this;
    }

    public function seeNot(string $text, string $in = 'body'): self
    {
        $this->until("not to see \"{$text}\" in {$in}", fn(): bool => !str_contains($this->text($in), $text));

        return $this;
    }

    public function waitFor(string $selector): RemoteWebElement
    {
        $this->until(
            "for {$selector}",
            fn(): bool => ($this->all($selector)[0] ?? null)?->isDisplayed() === true ||
                ($this->all($selector)[0] ?? null)?->getAttribute('type') === 'file',
        );

        return $this->all($selector)[0];
    }

    public function text(string $selector): string
    {
        return (string) $this->script("return [...document.querySelectorAll(arguments[0])].map((e) => e.innerText).join('\\n')", $selector);
    }

    public function path(): string
    {
        return (string) parse_url($this->browser->getCurrentURL(), PHP_URL_PATH);
    }

    public function reload(): self
    {
        $this->browser->navigate()->refresh();

        return $this;
    }

    public function script(string $script, mixed ...$arguments): mixed
    {
        return $this->browser->executeScript($script, $arguments);
    }

    /**
     * Waits until nothing moves any more: what fades has no contrast of its own yet.
     */
    public function settle(): void
    {
        usleep(120_000);
        $this->until(
            'until nothing moves',
            fn(): bool => true ===
                $this->script(
                    "return document.getAnimations().every((a) => a.playState !== 'running' || " .
                        'a.effect?.getComputedTiming().iterations === Infinity)',
                ),
        );
    }

    /**
     * @param  array<string, mixed>  $parameters
     */
    public function tell(string $command, array $parameters = []): mixed
    {
        return $this->browser->executeCustomCommand('/session/:sessionId/goog/cdp/execute', 'POST', [
            'cmd' => $command,
            'params' => (object) $parameters,
        ]);
    }

    public function until(string $what, \Closure $true): void
    {
        $end = microtime(true) + self::PATIENCE;
        do {
            try {
                if ($true()) {
                    Assert::assertNotSame('', $what);

                    return;
                }
            } catch (StaleElementReferenceException | NoSuchElementException | ClickIntercepted | NotInteractable) {
                // The page is being drawn; look again.
            }
            usleep(60_000);
        } while (microtime(true) < $end);
        $this->picture(dirname(__DIR__, 2) . '/var/log/browser-failure-' . getenv('LUCID_TEST_STACK') . '.png');
        Assert::fail(
            "Waited in vain {$what}. At {$this->path()}:\n" .
                mb_substr($this->text('body'), 0, 1500) .
                "\n" .
                json_encode($this->browser->manage()->getLog('browser'), JSON_UNESCAPED_SLASHES),
        );
    }

    /**
     * @return list<RemoteWebElement>
     */
    private function all(string $selector): array
    {
        return array_values($this->browser->findElements(WebDriverBy::cssSelector($selector)));
    }
}
