<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Session\Store;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Session;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Two requests of one session, of which one signs out while the other is still being answered.
 */
final class SignOutTest extends FeatureTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        config(['session.driver' => 'database']);
    }

    public function test_what_was_being_answered_while_somebody_signed_out_does_not_sign_them_in_again(): void
    {
        $id = $this->signedIn();
        $slow = $this->request($id);
        $signingOut = $this->request($id);
        self::assertSame('tobias', $slow->get('person'));
        $signingOut->invalidate();
        $signingOut->save();
        $slow->put('seen', 'today');
        $slow->save();
        self::assertNull($this->request($id)->get('person'));
        self::assertNull($this->request($signingOut->getId())->get('person'));
    }

    public function test_a_new_id_is_the_only_one_of_a_session_that_was_given_one(): void
    {
        $guest = $this->request(null);
        $guest->put('person', 'tobias');
        $guest->save();
        $signingIn = $this->request($guest->getId());
        $slow = $this->request($guest->getId());
        $signingIn->regenerate(true);
        $signingIn->save();
        $slow->save();
        self::assertSame('tobias', $this->request($signingIn->getId())->get('person'));
        self::assertNull($this->request($guest->getId())->get('person'));
    }

    public function test_requests_side_by_side_keep_their_session(): void
    {
        $id = $this->signedIn();
        $one = $this->request($id);
        $other = $this->request($id);
        $one->put('a long word that the other did not write', str_repeat('x', 5000));
        $one->save();
        $other->put('seen', 'cycles');
        $other->save();
        self::assertSame('tobias', $this->request($id)->get('person'));
        self::assertSame('cycles', $this->request($id)->get('seen'));
    }

    public function test_a_session_nobody_used_for_long_is_over_and_its_place_can_be_taken(): void
    {
        $id = $this->signedIn();
        DB::table('sessions')
            ->where('id', $id)
            ->update(['last_activity' => time() - 60 * ((int) config('session.lifetime') + 1)]);
        $late = $this->request($id);
        self::assertNull($late->get('person'));
        $late->put('person', 'maren');
        $late->save();
        self::assertSame('maren', $this->request($id)->get('person'));
    }

    private function signedIn(): string
    {
        $session = $this->request(null);
        $session->put('person', 'tobias');
        $session->save();

        return $session->getId();
    }

    /** As another process has it: with a handler of its own. */
    private function request(?string $id): Store
    {
        clearstatcache();
        Session::forgetDrivers();
        $session = Session::driver();
        self::assertInstanceOf(Store::class, $session);
        $session->setId($id);
        $session->start();

        return $session;
    }
}
