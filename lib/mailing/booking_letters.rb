module Mailing
  # The letters about booked times, each with its subject and words.
  module BookingLetters
    CHANGE = "Move it or give it back"

    module_function

    # To the visitor, whose address has to be proved.
    def proof(title:, at:, url:)
      said = "Please confirm that you want “#{title}” on #{at}. The time is held for you for 15 minutes."
      note("Please confirm", title, said, ["Confirm it", url])
    end

    # To the visitor, with the calendar object.
    # @param hosts [Array<String>] names; location [String, nil]; call [Core::Invitation::Call, nil]
    # @param after [String, nil] what the host says afterwards
    def booked(title:, hosts:, at:, location:, call:, url:, after: nil)
      said = "You have booked “#{title}” with #{Core::Words.list(hosts)}.\n\n#{[at, location].compact.join("\n")}"
      note("Booked", title, [said, after].compact.join("\n\n"), [CHANGE, url], join: Join.new(call))
    end

    # To the visitor, who has moved it.
    # @param location, call as for booked
    def you_moved(title:, at:, location:, call:, url:)
      said = ["You have moved “#{title}” to #{at}.", location].compact.join("\n")
      note("Moved", title, said, [CHANGE, url], join: Join.new(call))
    end

    # To the visitor, who has given it back.
    def you_gave_back(title:, at:)
      note("Given back", title, "You have given back “#{title}” on #{at}. The time is free for others again.")
    end

    # To the visitor, who has said by calendar or link that they cannot.
    def give_back(title:, at:, url:)
      said = "You have said that you cannot come to “#{title}” on #{at}. The time is kept for you until you give it " \
        "back or move it."
      note("Give it back", title, said, [CHANGE, url])
    end

    KINDS = {
      "booked" => ["Booked", "has booked “%s” on"], "moved" => ["Moved", "has moved “%s” to"],
      "given_back" => ["Given back", "has given back “%s” on"],
      "declined" => ["Cannot come", "cannot come to “%s” on"]
    }.freeze

    # To a host.
    # @param kind [String] of KINDS
    # @param with [Array<String>] the other hosts
    # @param answers [Array<Hash>] question and answer; doubts [Array<String>] what is not sure about the time
    # @param location, call as for booked
    def for_host(kind:, title:, name:, at:, url:, with: [], answers: [], doubts: [], location: nil, call: nil)
      subject, verb = KINDS.fetch(kind)
      parts = [["#{name} #{format(verb, title)} #{at}.", host_words(kind, with)].compact.join(" "), location]
      parts << answers.map { |one| answered(one) }.join("\n") if kind == "booked"
      parts << doubts.join("\n")
      said = parts.compact.reject(&:empty?).join("\n\n")
      about = (kind == "declined") ? "#{name} cannot come" : "#{subject} by #{name}"
      note(about, title, said, ["The meeting", url], join: Join.new(call))
    end

    def host_words(kind, with)
      return (with.any? ? "You are a host, with #{Core::Words.list(with)}." : "You are the host.") if kind == "booked"

      "The time stays taken until it is given back, or you call it off." if kind == "declined"
    end

    def answered(one) = "#{one["question"]} #{(one["answer"] == true) ? "Yes" : one["answer"]}"

    # To a colleague who is to be a host.
    def ask_host(title:, keeper:, url:)
      said = "#{keeper} asks you to be a host of the open hours “#{title}”. Once you agree, others can book times " \
        "with you there when you are free. Until then nothing of yours is shown, and which of your calendars count " \
        "is yours to choose."
      note("Asked to be a host", title, said, ["Agree, or say no", url])
    end

    # To whoever keeps them.
    # @param agreed [Boolean] whether they were a host before
    def host_left(title:, name:, agreed:, url:)
      said = agreed ? "#{name} is no longer a host of “#{title}”. What is booked stays." :
        "#{name} does not want to be a host of “#{title}”."
      note("#{name} #{agreed ? "has left" : "says no"}", title, said, ["The open hours", url])
    end

    # To who picks a time of their own within a meeting.
    # @param again [Boolean] whether the one they had is gone; at [String] the day
    def pick(title:, keeper:, at:, length_min:, again:, url:)
      said = again ? "The times have changed, and yours is not among them any more. " : ""
      note(again ? "Please pick another time" : "Please pick a time", title,
        "#{said}#{keeper} asks you to pick a time of #{length_min} minutes for “#{title}” on #{at}.",
        ["Pick a time", url])
    end

    def note(subject, title, words, link = nil, **more)
      Note.parts("#{subject}: #{title}", title, words, link, **more)
    end
  end
end
