<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Areas\People\Actions\OneTimeLinks;
use LucidStep\App\Models\LinkPurpose;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Totp;
use LucidStep\Tests\Support\FeatureTestCase;
use Symfony\Component\HttpFoundation\Response;

/**
 * A second factor at sign-in.
 */
final class SecondFactorTest extends FeatureTestCase
{
    private const PASSWORD = 'four lanterns on the quay';

    private User $ana;

    protected function setUp(): void
    {
        parent::setUp();
        $this->travelTo(Carbon::createFromTimestamp(1_800_000_015));
        $this->ana = User::query()
            ->create(['name' => 'Ana', 'email' => 'ana@bakery.test', 'password' => self::PASSWORD])
            ->refresh();
    }

    public function test_it_is_asked_for_once_a_code_of_it_was_shown(): void
    {
        $secret = (string) $this->as($this->ana, 'POST', '/account/second-factor')->assertCreated()->json('secret');
        $this->signIn()->assertOk();
        $this->as($this->ana, 'PUT', '/account/second-factor', ['code' => '000000'])->assertJsonPath(
            'errors.code.0',
            'This is not the code of now. Each counts once, and for half a minute.',
        );
        $this->signIn()->assertOk();
        $codes = $this->confirm($secret);
        self::assertCount(10, array_unique($codes));
        $this->signIn()->assertJsonPath('errors.code.0', 'Enter the six digits that your phone shows, or a recovery code.');
        $this->signIn('123')->assertUnprocessable();
        $this->travel(30)->seconds();
        $this->signIn($this->code($secret))->assertOk();
        $this->signIn($this->code($secret))->assertUnprocessable();
        $this->travel(30)->seconds();
        $spaced = substr_replace($this->code($secret), ' ', 3, 0);
        $this->signIn($spaced)->assertOk();
        $page = $this->as($this->ana->refresh(), 'GET', '/account');
        self::assertSame([true, 10], [null !== $page->json('second_factor_at'), $page->json('recovery_codes')]);
        self::assertStringNotContainsString($secret, (string) DB::table('users')->where('id', $this->ana->id)->value('totp_secret'));
        $this->as($this->ana->refresh(), 'POST', '/account/second-factor')->assertConflict();
    }

    public function test_a_recovery_code_counts_once(): void
    {
        $codes = $this->confirm();
        $this->signIn(strtoupper(" {$codes[3]} "))->assertOk();
        $this->signIn($codes[3])->assertUnprocessable();
        $this->signIn($codes[0])->assertOk();
        self::assertSame(8, $this->as($this->ana->refresh(), 'GET', '/account')->json('recovery_codes'));
        self::assertStringNotContainsString($codes[5], (string) json_encode(DB::table('users')->get()));
    }

    public function test_a_clock_that_is_off_by_ninety_seconds_is_said_to_be(): void
    {
        $secret = (string) $this->as($this->ana, 'POST', '/account/second-factor')->json('secret');
        $this->confirm($secret);
        $this->travel(10)->minutes();
        $ahead = Totp::code($secret, intdiv(Carbon::now()->getTimestamp() + 90, Totp::PERIOD));
        $this->signIn($ahead)->assertJsonPath(
            'errors.code.0',
            'The clock of your phone is about 90 seconds ahead. Set it to the time of the network, and take the next code.',
        );
        $this->signIn(Totp::code($secret, intdiv(Carbon::now()->getTimestamp() - 30, Totp::PERIOD)))->assertOk();
    }

    public function test_a_wrong_password_tells_nothing_of_a_second_factor(): void
    {
        $this->confirm();
        $wrong = $this->guest('/session', ['email' => $this->ana->email, 'password' => 'a guess', 'code' => '']);
        self::assertSame(['email'], array_keys($wrong->assertUnprocessable()->json('errors')));
    }

    public function test_it_is_dropped_by_the_password_and_taken_by_an_owner_from_whoever_lost_it(): void
    {
        $this->confirm();
        $drop = fn(string $password) => $this->as($this->ana->refresh(), 'POST', '/account/second-factor-removals', [
            'password' => $password,
        ]);
        $drop('a guess')->assertJsonPath('errors.password.0', 'This is not the password that you have now.');
        $this->signIn()->assertUnprocessable();
        $drop(self::PASSWORD)->assertOk()->assertJsonPath('second_factor_at', null);
        $this->signIn()->assertOk();
        $this->confirm();
        $owner = User::query()
            ->create(['name' => 'Ada', 'email' => 'ada@bakery.test', 'password' => 'x', 'is_owner' => true])
            ->refresh();
        $people = array_column($this->as($owner, 'GET', '/installation')->json('people'), 'has_second_factor', 'name');
        self::assertSame([true, false], [$people['Ana'], $people['Ada']]);
        $this->as($owner, 'POST', "/installation/people/{$this->ana->id}/factor-removals")->assertOk();
        $this->signIn()->assertOk();
    }

    /**
     * Who reads somebody's mail is not in by that; whoever runs the machine vouches for an owner.
     */
    public function test_a_mail_alone_is_no_second_factor(): void
    {
        $codes = $this->confirm();
        $token = fn(LinkPurpose $purpose): string => explode('#', OneTimeLinks::make($purpose, $this->ana))[1];
        $mailed = ['token' => $token(LinkPurpose::Password), 'password' => 'another one on the quay'];
        $this->guest('/link-uses', $mailed)->assertJsonStructure(['errors' => ['code']]);
        $this->guest('/session', ['email' => $this->ana->email, 'password' => self::PASSWORD, 'code' => $codes[1]])->assertOk();
        $this->guest('/link-uses', [...$mailed, 'code' => $codes[2]])->assertOk();
        $this->guest('/link-uses', ['token' => $token(LinkPurpose::Owner), 'password' => self::PASSWORD])->assertOk();
        $this->signIn()->assertOk();
    }

    /**
     * @return list<string> recovery codes
     */
    private function confirm(?string $secret = null): array
    {
        $secret ??= (string) $this->as($this->ana->refresh(), 'POST', '/account/second-factor')
            ->assertCreated()
            ->json('secret');

        return $this->as($this->ana->refresh(), 'PUT', '/account/second-factor', ['code' => $this->code($secret)])
            ->assertOk()
            ->json('codes');
    }

    private function code(string $secret): string
    {
        return Totp::code($secret, intdiv(Carbon::now()->getTimestamp(), Totp::PERIOD));
    }

    /**
     * @return TestResponse<Response>
     */
    private function signIn(string $code = ''): TestResponse
    {
        return $this->guest('/session', ['email' => $this->ana->email, 'password' => self::PASSWORD, 'code' => $code]);
    }

    /**
     * @param  array<string, string>  $body
     * @return TestResponse<Response>
     */
    private function guest(string $path, array $body): TestResponse
    {
        $this->app?->make('auth')->forgetGuards();
        $this->app?->make('session')->flush();
        // How often one may try is another test's.
        $this->app?->make(\Illuminate\Cache\RateLimiter::class)->clear(md5('sign-in' . "{$this->ana->email}|127.0.0.1"));

        return $this->json('POST', "/api/v1{$path}", $body);
    }
}
