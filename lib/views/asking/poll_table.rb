require "csv"

module Views
  # A poll as whoever keeps it sees it: people by times, what is best and why, and what is new.
  class PollTable < Base
    def show(id)
      @loaded = Loading::PollTally.of(id)
      @calendars = Loading::PollCalendars.of(poll, now: now)
      @names = @loaded.names
      head.merge(
        people: people, candidates: @loaded.tally.ranked.map { |one| candidate(one) }, suggestions: suggestions,
        news: news, settled: settled, **settings
      )
    end

    # @return [Array(String, String)] name of a file and its content: people by times (RFC 4180)
    def csv(id)
      @loaded = Loading::PollTally.of(id)
      times = poll.candidates.map { |one| zone.wall(one.starts_at).to_s[0, 16].tr("T", " ") }
      text = CSV.generate(row_sep: "\r\n") do |csv|
        csv << ["Name", "Comes", *times, "Comment"]
        poll.people.each { |one| csv << csv_row(one).map { |cell| Cell.safe(cell) } }
      end
      ["#{poll.title}.csv", text]
    end

    private

    def csv_row(one)
      said = poll.candidates.map { |other| @loaded.answers[[other.id, one.person_id]] }
      [one.name, one.role, *said, one.comment]
    end

    def poll = @loaded.poll

    def zone = poll.zone

    def head
      {
        id: poll.id, version: poll.lock_version, title: poll.title, words: poll.words, length_min: poll.length_min,
        time_zone: poll.time_zone, zone_city: zone.city, asked_local: zone.wall(poll.created_at),
        closes_at: poll.closes_at, closes_local: zone.wall(poll.closes_at), state: poll.state,
        over: !poll.takes_answers?(now), closed_word: poll.closed_word, keeper: poll.kept_by.name
      }
    end

    def settings
      {
        shows: poll.shows, tells: poll.tells, by_itself: poll.by_itself, outcome: poll.outcome, rule: poll.rule,
        aim: aim, place_id: poll.place_id, place: poll.place, location: poll.location, call_kind: poll.call_kind,
        holds_times: poll.holds_times, shares_names: poll.shares_names, series_id: poll.series_id,
        meeting_id: poll.meeting_id, shared_path: (Loading::PollLink.shared_path(poll) if poll.shared)
      }
    end

    # The meeting or series it is for, in words.
    def aim
      case poll.outcome
      when "move" then meeting_words(Records::Meeting.includes(:series).find_by(id: poll.meeting_id))
      when "within" then Records::Series.where(id: poll.series_id).pick(:title)
      when "series" then Core::Recurrence::Sentence.new(run).how_often
      end
    end

    def run
      Core::Recurrence::Run.read(
        start: zone.wall(poll.candidates.first&.starts_at || now).to_s, zone: poll.time_zone,
        length_min: poll.length_min, rule: poll.rule
      )
    end

    def meeting_words(meeting)
      meeting && "#{meeting.series.title}, #{Core::Words.day(meeting.series.zone.wall(meeting.starts_at).date)}"
    end

    def people
      poll.people.map do |one|
        {
          id: one.person_id, name: one.name, role: one.role, answered: !one.answered_at.nil?,
          reachable: one.person.reachable?, guest: one.person.guest,
          email: (one.person.email if (one.person.guest || one.said_name) && one.person.reachable?),
          said_email: one.said_email, way: one.way, accepts: one.accepts, none_suits: one.none_suits,
          comment: one.comment, asked: !one.asked_at.nil?
        }
      end
    end

    def candidate(standing)
      one = poll.candidates.find { |other| other.id == standing.id }
      states = @calendars.at(one.starts_at)
      {
        id: one.id, starts_at: one.starts_at, local_start: zone.wall(one.starts_at),
        local_end: zone.wall(one.starts_at + poll.length_min * 60), elsewhere: elsewhere(one.starts_at),
        suits: standing.suits, possible: standing.possible, cannot: standing.cannot, silent: standing.silent,
        reason: @loaded.reason(standing, busy: against(states)), best: @loaded.tally.best.include?(standing),
        past: one.starts_at <= now, filled_up: filled_up(one, states), also_asked: also_asked(one.starts_at),
        calendars: states.map { |id, state| {person_id: id, state: state} }
      }
    end

    # Titles of other polls of the same keeper that are open, and ask for a time that overlaps.
    def also_asked(starts_at)
      ends_at = starts_at + poll.length_min * 60
      others.select { |_, from, length_min| from < ends_at && from + length_min * 60 > starts_at }.map(&:first).uniq
    end

    def others
      @others ||= Records::TimePoll.asking.where(kept_by_id: poll.kept_by_id).where.not(id: poll.id).joins(:candidates)
        .where("poll_candidates.starts_at > ?", now).pluck(:title, "poll_candidates.starts_at", :length_min)
    end

    # Whose calendars speak against it now and did not when it was offered.
    def filled_up(one, states)
      return [] if poll.state == "settled"

      (against(states) - (one.busy_then || [])).filter_map { |id| @names[id] }
    end

    def against(states) = states.select { |_, state| %i[busy outside].include?(state) }.keys

    # The same moment on the walls of those asked.
    def elsewhere(starts_at)
      here = zone.wall(starts_at)
      zones = poll.people.map { |one| one.person.zone }.uniq(&:name).reject { |one| one.wall(starts_at) == here }
      zones.map { |one| "#{Core::Words.clock(one.wall(starts_at))} in #{one.city}" }.uniq
    end

    # Times that others suggest, with who is known to be free then.
    def suggestions
      pairs = poll.people.flat_map { |one| one.suggestions.map { |other| [other.starts_at, one.name] } }
      known = suggestion_calendars(pairs.map(&:first))
      pairs.group_by(&:first).sort.map do |starts_at, rows|
        states = known.at(starts_at)
        {
          starts_at: starts_at, local_start: zone.wall(starts_at), names: rows.map(&:last),
          free: states.count { |_, state| state == :free },
          against: against(states).filter_map { |id| @names[id] }
        }
      end
    end

    def suggestion_calendars(starts)
      roles = poll.people.reject { |one| one.person.guest }.to_h { |one| [one.person_id, one.role.to_sym] }
      Loading::PollCalendars.new(
        roles, starts, length_min: poll.length_min, now: now, holds: poll.candidates.filter_map(&:hold_id)
      )
    end

    # Who has answered since whoever keeps it has last looked, the latest first.
    def news
      since = poll.seen_at || poll.created_at
      fresh = poll.people.select { |one| one.answered_at && one.answered_at > since && one.way != "keeper" }
      fresh.sort_by(&:answered_at).reverse.map do |one|
        {name: one.name, at: one.answered_at, comment: one.comment, said: said(one)}
      end
    end

    # "suits 2, possible 1"
    def said(one)
      return "none of these" if one.none_suits

      counts = one.answers.map(&:answer).tally
      Core::Asking::Tally::ANSWERS.filter_map { |word| "#{word} #{counts[word]}" if counts[word] }.join(", ")
    end

    def settled
      return unless poll.state == "settled"

      {
        candidate_id: poll.settled_candidate_id, told: poll.settled_told, series_id: poll.made_series_id,
        meeting_id: poll.made_meeting_id
      }
    end
  end
end
