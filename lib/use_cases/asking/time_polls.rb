module UseCases
  # Asking people for times: who is asked, which times, until when, and what becomes of it.
  class TimePolls < Base
    SETTINGS = %i[shows tells by_itself outcome series_id meeting_id rule holds_times].freeze

    # Asks at once: whoever makes it has seen whom and what.
    # @param id [String] key made by the browser
    # @param candidates [Array<Hash>] id and starts_at
    # @param people, groups, guests, names [Array<Hash>] as PollPeople#set takes them
    # @param closes_at [Time, nil] two working days by default
    def create(id:, title:, length_min:, time_zone:, candidates:, people: [], groups: [], guests: [], names: [],
      closes_at: nil, **rest)
      once(Records::TimePoll, id) do
        zone = Core::Zone[time_zone, pointer: "/timeZone"]
        poll = Records::TimePoll.create!(
          id: id, kept_by_id: by, length_min: length_min, time_zone: zone.name,
          **head(title: title, **rest), **deadline(closes_at, candidates), seen_at: now, created_at: now
        )
        people_of(poll).set(people: people, groups: groups, guests: guests, names: names)
        settle_by_itself(poll, rest)
        candidates_of(poll).set(candidates)
        people_of(poll).ask
      end
    end

    # Everything but times and people.
    # @param version [Integer] the version seen
    def change(id:, version:, title:, closes_at:, **rest)
      write do
        poll = open_poll(id)
        last = poll.candidates.maximum(:starts_at)
        Core::Asking::Deadline.check(closes_at, now: now, last: last) unless closes_at == poll.closes_at
        wish = {**head(title: title, **rest), closes_at: closes_at}
        wish[:remind_at] = Core::Asking::Deadline.half_time(now, closes_at) unless closes_at == poll.closes_at
        wish[:result_told_at] = nil unless closes_at == poll.closes_at
        changed = update(poll, version, **wish)
        candidates_of(poll).hold_anew if changed && poll.saved_changes.keys.intersect?(%w[holds_times place_id])
      end
    end

    # Other times, all there are. Who has answered is asked for those that are new alone.
    # @param candidates [Array<Hash>] id and starts_at
    def set_candidates(id:, candidates:)
      write do
        poll = open_poll(id)
        added = candidates_of(poll).set(candidates)
        people_of(poll).ask_for_more(added) if added.any?
        touch(poll)
      end
    end

    # Other people, all there are; those who are new are asked at once.
    def set_people(id:, people: [], groups: [], guests: [], names: [])
      write do
        poll = open_poll(id)
        people_of(poll).set(people: people, groups: groups, guests: guests, names: names)
        people_of(poll).ask
        touch(poll)
      end
    end

    # A link for anyone who has it, on or off; turned on again, it is another.
    # @param names [Boolean] whether it shows who is asked
    def share(id:, open:, names: false)
      write do
        poll = open_poll(id)
        serial = poll.shared_serial + ((open && !poll.shared) ? 1 : 0)
        # Who else may come by it is not known: it settles by hand from then on.
        poll.update!(
          shared: open, shares_names: names, shared_serial: serial, by_itself: poll.by_itself && !open
        )
      end
    end

    # Whoever keeps it has looked at what is new.
    def seen(id) = write { Records::TimePoll.where(id: id).update_all(seen_at: now) }

    # Mails once more to those who have said nothing.
    def remind(id)
      write do
        poll = open_poll(id)
        refuse_over(poll)
        people_of(poll).remind(now)
      end
    end

    # Ends without a time.
    # @param word [String, nil] to those who were asked
    def close(id:, word: nil)
      write do
        poll = find(Records::TimePoll.lock, id)
        next if poll.state == "closed"
        raise Core::Conflict.new("This is settled already.", code: "state") if poll.state == "settled"

        poll.update!(state: "closed", closed_word: words(word))
        candidates_of(poll).let_go
        people_of(poll).tell_closed
      end
    end

    private

    def people_of(poll) = PollPeople.new(poll, by: by, clock: @clock)

    def candidates_of(poll) = PollCandidates.new(poll, by: by, clock: @clock)

    def open_poll(id)
      poll = find(Records::TimePoll.lock, id)
      unless poll.state == "open"
        raise Core::Conflict.new("This is #{poll.state}, and no longer changes.",
          code: "state")
      end

      poll
    end

    def refuse_over(poll)
      return if poll.takes_answers?(now)

      raise Core::Conflict.new("The time to answer is over. Give it a new deadline first.", code: "over")
    end

    # What two may change at once is seen to have changed.
    def touch(poll) = poll.update!(updated_at: now)

    def deadline(closes_at, candidates)
      starts = candidates.map { |one| one[:starts_at] }
      me = find(Records::Person.includes(:days_off), by)
      hours = Loading::Hours.of(me, now, now + Core::Asking::Deadline::REACH_DAYS * 86_400)
      closes_at ||= Core::Asking::Deadline.usual(hours, now: now, first: starts.min)
      Core::Asking::Deadline.check(closes_at, now: now, last: starts.max) unless starts.max.to_i <= now.to_i
      {closes_at: closes_at, remind_at: Core::Asking::Deadline.half_time(now, closes_at)}
    end

    # With one invitee it settles by itself, unless said otherwise (rules.md 5).
    def settle_by_itself(poll, rest)
      return if rest.key?(:by_itself)

      poll.update!(by_itself: poll.people.reload.one?)
    end

    def head(title:, words: nil, place_id: nil, place: nil, call_kind: "none", **rest)
      check_aim(rest)
      refuse_place(place_id)
      {
        title: Core::Title.read(title, pointer: "/title", missing: "Say what the times are for."),
        words: self.words(words), place_id: place_id,
        place: self.words(place), call_kind: CallWishes.read({kind: call_kind})[:call_kind],
        **rest.slice(*SETTINGS)
      }
    end

    def refuse_place(place_id)
      return if place_id.nil? || Records::Place.here.exists?(id: place_id)

      raise Core::Invalid.new("This place is not here any more.", pointer: "/placeId")
    end

    # What becomes of it is something one may do.
    def check_aim(aim)
      access = Loading::Access.new(by)
      case aim[:outcome]
      when "series" then rule(aim[:rule])
      when "move" then aimed(:meetingId) { access.allow!(:move_meeting, :meeting, aim[:meeting_id]) }
      when "within" then aimed(:seriesId) { access.allow!(:change_series, :series, aim[:series_id]) }
      end
    end

    def rule(text)
      raise Core::Invalid.new("Say how the series repeats.", pointer: "/rule") if text.to_s.empty?

      Core::Recurrence::Rule.parse(text)
    end

    def aimed(field)
      yield
    rescue Core::NotFound
      raise Core::Invalid.new("This is not yours to change, or not there any more.", pointer: "/#{field}")
    end
  end
end
