module Api
  # Asking for times, as whoever asks does it, and as those do who are asked.
  class TimePolls < Resource
    on(:get, "/time-polls", "listTimePolls", may: :see_own) { json use(Views::TimePolls).list }

    on :post, "/time-polls", "askForTimes", may: :make_series do
      polls.create(**timed(input))
      json table(input[:id]), 201
    end

    on(:get, "/time-polls/:id", "showTimePoll", may: :keep_poll, of: :time_poll) { json table }

    on :put, "/time-polls/:id", "changeTimePoll", may: :keep_poll, of: :time_poll do
      polls.change(id: params["id"], version: version, **timed(input))
      json table
    end

    on :put, "/time-polls/:id/candidates", "setCandidates", may: :keep_poll, of: :time_poll do
      polls.set_candidates(id: params["id"], **timed(input))
      json table
    end

    on :put, "/time-polls/:id/people", "setPollPeople", may: :keep_poll, of: :time_poll do
      polls.set_people(id: params["id"], **input)
      json table
    end

    on :put, "/time-polls/:id/people/:personId/answer", "enterPollAnswer", may: :keep_poll, of: :time_poll do
      use(UseCases::PollAnswers).enter(poll_id: params["id"], person_id: params["personId"], **input)
      json table
    end

    on :put, "/time-polls/:id/people/:personId/address", "takeSaidAddress", may: :keep_poll, of: :time_poll do
      use(UseCases::GuestAddresses).take_said(poll_id: params["id"], person_id: params["personId"])
      json table
    end

    on :put, "/time-polls/:id/shared-link", "sharePoll", may: :keep_poll, of: :time_poll do
      polls.share(id: params["id"], **input)
      json table
    end

    on :post, "/time-polls/:id/reminders", "remindPollSilent", may: :keep_poll, of: :time_poll do
      polls.remind(params["id"])
      json table
    end

    on :put, "/time-polls/:id/seen", "notePollSeen", may: :keep_poll, of: :time_poll do
      polls.seen(params["id"])
      status 204
    end

    on :post, "/time-polls/:id/closing", "closePoll", may: :keep_poll, of: :time_poll do
      polls.close(id: params["id"], **input)
      json table
    end

    on :put, "/time-polls/:id/settlement", "settlePoll", may: :keep_poll, of: :time_poll do
      settling.settle(id: params["id"], **input)
      json table
    end

    on :delete, "/time-polls/:id/settlement", "openPollAgain", may: :keep_poll, of: :time_poll do
      settling.open_again(params["id"])
      json table
    end

    on :get, "/time-polls/:id/answers.csv", "exportPoll", may: :keep_poll, of: :time_poll do
      name, text = use(Views::PollTable).csv(params["id"])
      download name, "text/csv", text
    end

    on(:post, "/dates-read", "readDates", may: :search_times) { json use(Views::CandidateTimes).read(**input) }

    on :post, "/candidate-checks", "checkCandidates", may: :search_times do
      json use(Views::CandidateTimes).check(**input, starts: instants(input[:starts]))
    end

    on :get, "/poll-links/:id/:personId/:token", "openPollLink", may: :link, of: :poll do
      json use(Views::PollPage).of_person(link)
    end

    on :put, "/poll-links/:id/:personId/:token", "answerPoll", may: :link, of: :poll do
      by_link.keep(link, **answer)
      json use(Views::PollPage).of_person(reopened)
    end

    on :get, "/shared-polls/:id/:token", "openSharedPoll", may: :link, of: :shared_poll do
      json use(Views::PollPage).shared(link)
    end

    on :post, "/shared-polls/:id/:token", "answerSharedPoll", may: :link, of: :shared_poll do
      one = by_link.keep_shared(link, **answer)
      path = one && Loading::PollLink.path(one.time_poll_id, one.person_id)
      json use(Views::PollPage).shared(reopened, path: path, proof: one.nil?), 201
    end

    private

    def polls = use(UseCases::TimePolls)

    def settling = use(UseCases::PollSettling)

    def by_link = UseCases::PollAnswers.new(sent: @sent)

    def table(id = params["id"]) = use(Views::PollTable).show(id)

    def answer = input.key?(:suggestions) ? input.merge(suggestions: instants(input[:suggestions])) : input

    def instants(texts) = (texts || []).map { |text| Time.iso8601(text).utc }

    # Moments of a wish, as times.
    def timed(wish)
      candidates = wish[:candidates]&.map { |one| one.merge(starts_at: Time.iso8601(one[:starts_at]).utc) }
      closes_at = wish[:closes_at] && Time.iso8601(wish[:closes_at]).utc
      {**wish, candidates: candidates, closes_at: closes_at}.compact
    end
  end
end
