require "digest"
require "securerandom"
require "zxcvbn"

module UseCases
  # Signing in and out, in as many browsers as one likes; each sign-in is a row that can be ended, at once and on every
  # server. Choosing a password, also by a link that was mailed.
  class SignIns < Base
    LASTS_DAYS = 14
    SEEN_EVERY_S = 600
    LINK_S = {"invited" => 3 * 86_400, "forgotten" => 3_600}.freeze
    LISTED = 30
    # Of zxcvbn's scale from 0 to 4: below, a password falls within a million guesses.
    LOWEST_SCORE = 2

    class << self
      def digest(token) = Digest::SHA256.hexdigest(token.to_s)

      # @param about [Array<String>] words somebody who knows the person would try
      def check_password(password, about: [], pointer: "/password")
        common =
          password.length >= Core::Password::SHORTEST &&
          Zxcvbn.zxcvbn(password[0, Core::Password::MOST_BYTES], ["left over", *about])["score"] < LOWEST_SCORE
        Core::Password.check(password, common: common, pointer: pointer)
      end
    end

    # Who a browser's token stands for. @return [Array(String, String), nil] keys of person and sign-in
    def whose(token)
      return if token.to_s.empty?

      id, person_id, seen_at =
        Records::Session
          .standing(now, LASTS_DAYS)
          .where(token_digest: SignIns.digest(token))
          .pick(:id, :person_id, :seen_at)
      return unless id

      Records::Session.where(id: id).update_all(seen_at: now) if now - seen_at > SEEN_EVERY_S
      [person_id, id]
    end

    # @param from [String] the address of the other end
    # @param browser [#id_for] who has signed in with this browser before
    # @return [Array(String, String)] key of who it is, and what the browser is to hold
    # @raise [Core::Invalid] code "sign-in"; [Core::TooMany]
    def sign_in(email:, password:, from:, browser:, program: nil)
      address = Core::MailAddress.normal(email)
      person = Records::Person.find_by(email: address)
      right = Tries.new(clock: @clock).at(address, from: from, browser: browser.id_for(person&.id)) do
        person if right?(person, password)
      end
      return [person.id, begin_for(person.id, program)] if right

      raise Core::Invalid.new(
        "This address and password do not belong together.", pointer: "/password", code: "sign-in"
      )
    end

    def begin_for(person_id, program)
      token = SecureRandom.urlsafe_base64(32)
      write do
        Records::Session.create!(
          person_id: person_id, token_digest: SignIns.digest(token), program: words(program)&.slice(0, 120),
          seen_at: now
        )
      end
      token
    end

    def sign_out(token) =
      write { Records::Session.where(token_digest: SignIns.digest(token), ended_at: nil).update_all(ended_at: now) }

    # Somebody's own, the latest first. @param current [String] key of the one that asks
    def list(current)
      sessions =
        Records::Session.standing(now, LASTS_DAYS).where(person_id: by).order(seen_at: :desc, id: :desc).limit(LISTED)
      {
        sessions:
          sessions.map do |one|
            {
              id: one.id, program: one.program, since: one.created_at, seen_at: one.seen_at,
              current: one.id == current
            }
          end
      }
    end

    def end_one(id) = write { Records::Session.where(id: id, ended_at: nil).update_all(ended_at: now) }

    # @param except [String, nil] key of the one that stays
    def end_all(person_id, except: nil) = write do
      Records::Session
        .where(person_id: person_id, ended_at: nil)
        .where.not(id: except.to_s)
        .update_all(ended_at: now)
    end

    # Somebody's own password; all other sign-ins end.
    # @param old [String] the one they have
    def change_password(old:, password:, current:)
      write do
        person = find(Records::Person.lock, by)
        unless person.password_digest && person.authenticate(old)
          raise Core::Invalid.new("This is not your password.", pointer: "/old", code: "sign-in")
        end

        choose(person, password)
        end_all(by, except: current)
      end
    end

    # --- By a link that is mailed ---

    # A link to sign in for the first time.
    def invite(person_id)
      person = find(Records::Person.where(guest: false), person_id)
      write { mail_link(person, "invited") }
    end

    # For whoever has forgotten their password. For the worker: how long it takes tells whether the address is known.
    def forgotten(email:)
      person = Records::Person.find_by(email: Core::MailAddress.normal(email), guest: false) or return
      write { mail_link(person, "forgotten") }
    end

    # @return [Hash] whose link it is @raise [Core::NotFound] when it is not, or no more, good
    def show_link(token)
      link = good_link(Records::SignInLink.includes(:person), token)
      {name: link.person.name, email: link.person.email, kind: link.kind}
    end

    # The link is used up, all sign-ins end. @return [String] what the browser is to hold
    def use_link(token, password:, program: nil)
      write do
        link = good_link(Records::SignInLink.lock, token)
        choose(link.person, password)
        Records::SignInLink.where(person_id: link.person_id, used_at: nil).update_all(used_at: now)
        end_all(link.person_id)
        begin_for(link.person_id, program)
      end
    end

    # For the worker: what has ended long ago.
    def sweep
      Records::Session
        .where("seen_at < ? or ended_at < ?", now - LASTS_DAYS * 86_400, now - 86_400)
        .in_batches(of: 500)
        .delete_all
      Records::SignInLink.where("expires_at < ?", now - 86_400).in_batches(of: 500).delete_all
    end

    private

    # An unknown address takes as long as a wrong password, so that neither can be told from the other.
    def right?(person, password)
      return person.authenticate(password) if person&.password_digest

      BCrypt::Password.create(password[0, Core::Password::MOST_BYTES].delete("\0"), cost: BCrypt::Engine.cost) && false
    end

    def good_link(links, token) = links.good(now).find_by(token_digest: SignIns.digest(token)) || raise(Core::NotFound)

    def choose(person, password)
      SignIns.check_password(password, about: [person.name, person.email])
      person.update!(password: password)
    end

    # Those before it stay good, each once: whoever asks for another link in somebody's name takes none away.
    def mail_link(person, kind)
      token = SecureRandom.urlsafe_base64(24)
      link = Records::SignInLink.create!(
        person_id: person.id, kind: kind, token_digest: SignIns.digest(token), expires_at: now + LINK_S.fetch(kind)
      )
      note = Mailing::SignInNote.parts(
        kind, until_at: person.zone.wall(link.expires_at), zone: person.zone,
        url: "#{Settings.origin}/sign-in/#{token}"
      )
      Outbox.new(clock: @clock).put(reason: "sign-in:#{link.id}", to: person, **note)
    end
  end
end
