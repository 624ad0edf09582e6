<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Auth\AuthManager;
use Illuminate\Session\Middleware\StartSession;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Areas\Mail\PlainMail;
use LucidStep\App\Areas\People\Actions\RememberDevice;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Ways to sign in beside a password, and what is told of them.
 */
final class SignInTest extends FeatureTestCase
{
    private const PASSWORD = 'four lanterns on the quay';

    private User $ana;

    protected function setUp(): void
    {
        parent::setUp();
        config(['session.driver' => 'database']);
        $this->ana = User::query()
            ->create(['name' => 'Ana', 'email' => 'ana@bakery.test', 'password' => self::PASSWORD])
            ->refresh();
    }

    public function test_a_person_is_told_by_mail_of_a_device_that_they_were_never_seen_at(): void
    {
        Mail::fake();
        $first = $this->enter('Firefox/120 Windows');
        Mail::assertNothingSent();
        $this->enter('Firefox/120 Windows', $first);
        Mail::assertNothingSent();
        $phone = $this->enter('Mozilla (iPhone) Safari/604');
        self::assertNotSame($first, $phone);
        Mail::assertSent(PlainMail::class, function (PlainMail $mail): bool {
            $words = (string) ($mail->content()->with['words'] ?? '');

            return $mail->hasTo('ana@bakery.test') &&
                str_contains($words, 'Safari on iPhone, from 127.0.0.1') &&
                str_contains($words, '/account');
        });
        $this->enter('Mozilla (iPhone) Safari/604', $phone);
        Mail::assertSentCount(1);
        // What somebody else did there says nothing of Ana, and the database does not tell what a device is known by.
        $ben = User::query()->create(['name' => 'Ben', 'email' => 'ben@bakery.test', 'password' => self::PASSWORD]);
        $this->enter('Firefox/120 Windows', $first, $ben->email);
        Mail::assertSentCount(1);
        self::assertSame(3, DB::table('known_devices')->count());
        self::assertSame(0, DB::table('known_devices')->where('token_hash', $first)->count());
        // A cookie made up is not believed to be one of theirs.
        $this->enter('Firefox/120 Windows', str_repeat('a', 40));
        Mail::assertSentCount(2);
    }

    public function test_a_refused_password_says_nothing_of_the_device(): void
    {
        Mail::fake();
        $this->enter('Firefox/120 Windows');
        $this->post('/session', ['email' => 'ana@bakery.test', 'password' => 'a guess'])->assertUnprocessable();
        self::assertSame(1, DB::table('known_devices')->count());
        Mail::assertNothingSent();
    }

    public function test_a_trusted_proxy_signs_in_whom_it_names(): void
    {
        config(['lucid.proxy.addresses' => ['10.1.0.0/16'], 'lucid.proxy.header' => 'X-Remote-User']);
        $ask = fn(string $from, ?string $email): TestResponse => $this->asked($from, $email);
        $ask('10.1.4.7', 'Ana@Bakery.test ')->assertOk()->assertJsonPath('user.id', $this->ana->id);
        $ask('10.2.4.7', 'ana@bakery.test')->assertUnauthorized();
        $ask('10.1.4.7', null)->assertUnauthorized();
        $ask('10.1.4.7', 'nobody@bakery.test')->assertUnauthorized();
        $welcome = fn(string $from): mixed => $this->asked($from, 'nobody@bakery.test', '/welcome')->json('came_as');
        self::assertSame('nobody@bakery.test', $welcome('10.1.4.7'));
        self::assertNull($welcome('10.2.4.7'), 'from elsewhere the header says nothing');
        config(['lucid.proxy.addresses' => []]);
        $ask('10.1.4.7', 'ana@bakery.test')->assertUnauthorized();
        // A program has its token, whatever the proxy says.
        config(['lucid.proxy.addresses' => ['10.1.0.0/16']]);
        $ben = User::query()->create(['name' => 'Ben', 'email' => 'ben@bakery.test', 'password' => self::PASSWORD]);
        $token = $ben->createToken('a program', ['read'])->plainTextToken;
        $this->guests();
        $this->withServerVariables(['REMOTE_ADDR' => '10.1.4.7'])
            ->json('GET', '/api/v1/session', [], ['Authorization' => "Bearer {$token}", 'X-Remote-User' => 'ana@bakery.test'])
            ->assertJsonPath('user.name', 'Ben');
    }

    public function test_whom_the_proxy_names_takes_the_place_of_who_was_there(): void
    {
        config(['lucid.proxy.addresses' => ['10.1.4.7']]);
        $ben = User::query()->create(['name' => 'Ben', 'email' => 'ben@bakery.test', 'password' => self::PASSWORD]);
        $this->asked('10.1.4.7', 'ana@bakery.test')->assertJsonPath('user.name', 'Ana');
        $before = (string) DB::table('sessions')->whereNotNull('user_id')->value('id');
        $this->guests();
        $as = ['Referer' => (string) config('app.url'), 'X-Remote-User' => $ben->email];
        $this->withServerVariables(['REMOTE_ADDR' => '10.1.4.7'])
            ->withCredentials()
            ->withCookie((string) config('session.cookie'), $before)
            ->json('GET', '/api/v1/session', [], $as)
            ->assertJsonPath('user.name', 'Ben');
        self::assertFalse(DB::table('sessions')->where('id', $before)->exists());
    }

    /**
     * @return string what the device is known by from now on
     */
    private function enter(string $browser, string $device = '', string $email = 'ana@bakery.test'): string
    {
        if ('' !== $device) {
            $this->withCookie(RememberDevice::COOKIE, $device);
        }
        $answer = $this->post('/session', ['email' => $email, 'password' => self::PASSWORD], ['User-Agent' => $browser])->assertOk();
        $cookie = $answer->getCookie(RememberDevice::COOKIE);
        self::assertTrue($cookie?->isHttpOnly());

        return (string) $cookie->getValue();
    }

    /**
     * @param  array<string, string>  $body
     * @param  array<string, string>  $headers
     *
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    public function post($path, array $body = [], array $headers = []): TestResponse
    {
        $this->guests();
        $answer = $this->withCredentials()->json('POST', "/api/v1{$path}", $body, ['Referer' => (string) config('app.url'), ...$headers]);
        $this->defaultCookies = [];

        return $answer;
    }

    /**
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function asked(string $from, ?string $email, string $path = '/session'): TestResponse
    {
        $this->guests();

        return $this->withServerVariables(['REMOTE_ADDR' => $from])->json(
            'GET',
            "/api/v1{$path}",
            [],
            [
                'Referer' => (string) config('app.url'),
                ...null === $email ? [] : ['X-Remote-User' => $email],
            ],
        );
    }

    private function guests(): void
    {
        $this->app?->forgetScopedInstances();
        $this->app?->make(AuthManager::class)->forgetGuards();
        foreach (['auth.driver', 'session', 'session.store', StartSession::class] as $kept) {
            $this->app?->forgetInstance($kept);
        }
    }
}
