module UseCases
  # What the invited send about a series held here: answers, other times, somebody instead, or the wish to be told
  # again. Whatever is not plainly one of these is kept aside.
  class IncomingAnswers < Base
    NOTE_LENGTH = 500

    # @param automatic [Boolean] whether a program has written it
    def initialize(series_id, automatic:, clock: Clock)
      super(clock: clock)
      @series_id = series_id
      @automatic = automatic
    end

    # @param message [Core::Invitation::Message]
    # @param sender [String] the address it came from
    # @return [Hash] what becomes of the mail: state, outcome and remark. Inside a transaction.
    def take(message, sender)
      event = message.events.first or return aside("no-answer", "#{sender} writes of no meeting.")
      person = Records::Person.find_by(email: spoken_for(message, event, sender))
      return substitute_reply(event, person, sender) if message.method == "reply" && stands_in?(person)

      telling = person && Records::Telling.find_by(series_id: @series_id, person_id: person.id, kind: "request")
      return uninvited(message, event, sender) unless telling && member?(person)

      case message.method
      when "reply" then reply(event, person, telling, sender)
      when "counter" then counter(event, person)
      when "refresh" then refresh(person, event)
      else aside("not-organizer", "#{sender} may answer, but not send “#{message.method}”.")
      end
    end

    private

    def taken(outcome, remark = nil) = {state: "taken", outcome: outcome, remark: remark}.compact

    def aside(outcome, remark) = {state: "aside", outcome: outcome, remark: remark[0, 500]}

    def uninvited(message, event, sender)
      said = event.attendees.first&.partstat || message.method
      aside("party-crasher", "#{sender} has not been invited and writes: #{said}.")
    end

    # Somebody with an account here may answer for another and say so (SENT-BY, RFC 5545 3.2.18); a stranger may not.
    # @return [String] the address it is about
    def spoken_for(message, event, sender)
      for_whom = event.attendees.find { |one| one.sent_by == sender }&.address if message.method == "reply"
      (for_whom && Records::Person.exists?(email: sender, guest: false)) ? for_whom : sender
    end

    def member?(person) = Records::SeriesMember.exists?(series_id: @series_id, person_id: person.id)

    def stands_in?(person)
      person && !member?(person) && Records::Substitute.of_series(@series_id).exists?(person_id: person.id)
    end

    def reply(event, person, telling, sender)
      verdict = Core::Invitation::Reply.verdict(
        event, person.email, told_sequence: telling.sequence, answered_stamp: telling.answered_stamp
      )
      case verdict
      when :forged then forged(event, sender)
      when :no_answer then aside("no-answer", "#{sender} answers “#{said_by(event, person).partstat}”.")
      when :delegated then pass_on(event, person)
      when :applied then apply(event, person, telling, sender)
      else taken(verdict.to_s.tr("_", "-"))
      end
    end

    def apply(event, person, telling, sender)
      meeting = event.recurrence_id && meeting_of(event)
      if event.recurrence_id && meeting.nil?
        return aside("no-such-meeting", "#{sender} answers to a meeting that is not there.")
      end

      kept = keep_answer(person, meeting, event)
      telling.update!(answered_stamp: stamp(event)) if meeting.nil?
      taken(kept ? "applied" : "ignored-stale")
    rescue Core::Conflict => error
      taken("ignored-stale", error.message)
    end

    def forged(event, sender)
      aside("forged", "#{sender} answers for #{event.attendees.first(3).map(&:address).join(", ")}.")
    end

    def said_by(event, person) = event.attendees.find { |one| one.address == person.email }

    def stamp(event) = Time.at(event.stamp || now.to_i).utc

    def note(event) = event.comment && Core::Words.shorten(event.comment, NOTE_LENGTH)

    # @return [Boolean] whether it counts
    def keep_answer(person, meeting, event)
      answer = Core::Invitation::Reply::ANSWERS.fetch(said_by(event, person).partstat)
      Answers.new(by: person.id, clock: @clock).keep(
        series_id: @series_id, person_id: person.id, answer: answer, meeting_id: meeting&.id, note: note(event),
        way: @automatic ? "program" : "mail", stamp: stamp(event)
      )
    end

    # Somebody sends another to one meeting (RFC 5546 3.2.2.3); a whole run is not passed on without the keeper.
    def pass_on(event, person)
      to = said_by(event, person).delegated_to or
        return aside("delegated", "#{person.name} passes the invitation on, but does not say to whom.")
      meeting = event.recurrence_id ? meeting_of(event) : the_only_one(coming)
      unless meeting
        return aside("delegated", "#{person.name} passes all meetings on to #{to}. Ask #{to} yourself if you agree.")
      end

      Substitutes.new(by: person.id, clock: @clock).send_instead(
        meeting_id: meeting.id, person_id: person.id, name: name_of(event, to), email: to, way: "mail"
      )
      taken("delegated")
    rescue Core::Invalid, Core::Conflict => error
      aside("delegated", "#{person.name} wants to send #{to} instead: #{error.message}")
    end

    def name_of(event, address) = event.attendees.find { |one| one.address == address }&.name || address

    def coming = Records::Meeting.where(series_id: @series_id).coming(now).in_order

    # Without saying which, it is clear when there is only one.
    def the_only_one(meetings) = meetings.limit(2).to_a.then { |found| found.first if found.size == 1 }

    # Of who comes instead of somebody: to that meeting alone.
    def substitute_reply(event, person, sender)
      said = said_by(event, person) or return forged(event, sender)
      meeting = stood_in_for(event, person)
      unless meeting && Core::Invitation::Reply::ANSWERS.key?(said.partstat)
        return aside("no-such-meeting", "#{sender} answers to a meeting they are not asked to.")
      end

      taken(keep_answer(person, meeting, event) ? "applied" : "ignored-stale")
    rescue Core::Conflict => error
      taken("ignored-stale", error.message)
    end

    def stood_in_for(event, person)
      standing_in = Records::Substitute.where(person_id: person.id).select(:meeting_id)
      return the_only_one(coming.where(id: standing_in)) unless event.recurrence_id

      Records::Meeting.where(series_id: @series_id, id: standing_in).find_by(id: meeting_of(event)&.id)
    end

    def counter(event, person)
      meeting = event.recurrence_id ? meeting_of(event) : coming.first
      unless meeting
        return aside("no-such-meeting", "#{person.name} offers another time for a meeting that is not there.")
      end

      from_s = event.start.instant_s
      OfferedTimes.new(by: person.id, clock: @clock).offer(
        id: Records::Key.make(now), meeting_id: meeting.id, person_id: person.id, starts_at: Time.at(from_s).utc,
        ends_at: Time.at(event.ends_s(from_s)).utc, note: note(event)
      )
      taken("counter-pending")
    rescue Core::Invalid, Core::Conflict => error
      aside("counter", "#{person.name} offers a time that cannot be taken: #{error.message}")
    end

    # Answered so often a day and never to a program, or two of them would write to each other for ever.
    def refresh(person, event)
      return taken("not-answered", "Written by a program.") if @automatic
      unless Outbox.new(clock: @clock).may_answer?(person.email)
        return taken("not-answered", "Asked for more often than #{Outbox::ANSWERS_A_DAY} times a day.")
      end

      Invitations.new(clock: @clock).send_again(
        series_id: @series_id, person_id: person.id, why: "asked", reason: "#{@series_id}:#{event.stamp}"
      )
      taken("send-request")
    end

    def meeting_of(event)
      wall = find(Records::Series, @series_id).zone.wall(Time.at(event.recurrence_id.instant_s))
      Records::Meeting.find_by(series_id: @series_id, original_start: wall.to_time)
    end
  end
end
