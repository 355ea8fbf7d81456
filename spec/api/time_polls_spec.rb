require_relative "../api_helper"
require_relative "../support/poll"

RSpec.describe "Asking for times" do
  include_context "with a poll"

  it "mails everybody the times on their own wall, once, with a deadline of two working days" do
    poll = ask
    2.times { ask(id: poll) }
    expect(mails.map { |mail| mail.to.first }).to contain_exactly(
      "wen@skerrybuoy.example", "lars@skerrybuoy.example", "odd@port.example"
    )
    mail = mails("wen@skerrybuoy.example").first
    expect(mail.subject).to eq "Which times suit you: Dry-dock talk"
    expect(mail.text_part.decoded).to include "Marit Hauge asks which of these times suit you",
      "#{Core::Words.day(day)}, #{Core::Words.clock(Core::Zone["America/Halifax"].wall(times[0]))} Halifax time",
      "Please answer until", Loading::PollLink.path(poll, wen)
    closes = Time.iso8601(shown(poll)["closesAt"])
    expect(closes).to be_between(Clock.now, times.first)
  end

  it "finds the best with the reason, shows what is new and keeps the times held meanwhile" do
    poll = ask
    answer(poll, wen, "sps")
    answer(poll, lars, "ssc", comment: "School run at four")
    answer(poll, odd, "p--")
    table = shown(poll)
    expect(table["candidates"].map { |one| ids.index(one["id"]) }).to eq [0, 1, 2]
    expect(table["candidates"].map { |one| one["reason"] }).to eq [
      "Nobody is out. Best.", "Nobody has said no.", "Lars Ekeli, who must come, cannot: “School run at four”."
    ]
    best = table["candidates"].first
    expect([names(table, best["suits"]),
      names(table, best["possible"])]).to eq [["Wen Halloran", "Lars Ekeli"], ["Odd Dahl"]]
    expect(table["news"].map { |one| [one["name"], one["said"]] }).to contain_exactly(
      ["Odd Dahl", "possible 1"], ["Lars Ekeli", "suits 2, cannot 1"], ["Wen Halloran", "suits 2, possible 1"]
    )
    call(:put, "/time-polls/#{poll}/seen")
    expect(shown(poll)["news"]).to eq []
    holds = Records::Hold.standing(Clock.now).where(kept_by_id: marit).pluck(:starts_at)
    expect(holds).to match_array times
    expect(call(:get, "/holds")["holds"]).to eq []
    expect(call(:get, "/time-polls")["polls"]).to match [a_hash_including("times" => 3, "asked" => 3, "answered" => 3)]
  end

  it "says beside each time what is known of a person's calendar, to them alone, and to whoever asks" do
    use(UseCases::Calendars, lars).add(id: (calendar = key), name: "Mine", kind: "by_hand", person_id: lars)
    busy = ->(hour) do
      use(UseCases::Calendars, lars).add_entry(
        id: key, calendar_id: calendar, title: "Dentist", local_start: "#{day}T#{hour}:00",
        local_end: "#{day}T#{hour}:30"
      )
    end
    busy[15]
    poll = ask
    expect(call(:get, link(poll, lars))["candidates"].map { |one| one["calendar"] }).to eq %w[free busy free]
    expect(call(:get, link(poll, odd))["candidates"].map { |one| one["calendar"] }).to eq [nil, nil, nil]
    busy[14]
    expect(by_time(poll).map { |one| one["filledUp"] }).to eq [["Lars Ekeli"], [], []]
    checked = call(:post, "/candidate-checks", {
      people: [{personId: lars, role: "required"}], starts: times.map(&:iso8601), lengthMin: 60, timeZone: "Europe/Oslo"
    })
    expect(checked["times"].map { |one| one["people"].first["state"] }).to eq %w[busy busy free]
  end

  it "takes an answer as often as it is sent, changes it, and takes none once it is closed" do
    poll = ask
    2.times {
      answer(poll, wen, "sc-", comment: "Rather early", accepts: true, suggestions: [(times[0] + 86_400).iso8601])
    }
    page = answer(poll, wen, "p--")
    expect(page["candidates"].map { |one| one["answer"] }).to eq %w[possible cannot none]
    call(:put, link(poll, wen), {answers: [{candidateId: ids[1], answer: "none"}]})
    expect(call(:get, link(poll, wen))["candidates"].map { |one| one["answer"] }).to eq %w[possible none none]
    call(:put, link(poll, wen), {answers: [{candidateId: key, answer: "suits"}]})
    expect(pointers).to eq ["/answers/0/candidateId"]
    call(:put, link(poll, wen), {answers: [], suggestions: [(Clock.now - 60).utc.iso8601]})
    expect(pointers).to eq ["/suggestions/0"]
    Records::TimePoll.where(id: poll).update_all(closes_at: Clock.now - 1)
    answer(poll, wen, "ccc")
    expect(code).to eq "over"
    expect(call(:get, link(poll, wen))["state"]).to eq "over"
    entered = {answers: [{candidateId: ids[0], answer: "suits"}], comment: "By telephone"}
    call(:put, "/time-polls/#{poll}/people/#{lars}/answer", entered)
    expect(by_time(poll).first["suits"]).to eq [lars]
  end

  it "shows as much of others' answers as whoever asks has said" do
    {"all" => [{"suits" => 1, "possible" => 0, "cannot" => 0}, [{"name" => "Wen Halloran", "answer" => "suits"}]],
     "tally" => [{"suits" => 1, "possible" => 0, "cannot" => 0}, nil], "nobody" => [nil, nil]}.each do |shows, expected|
      ids.map! { key }
      poll = ask(shows: shows, holdsTimes: false)
      answer(poll, wen, "s--")
      expect(call(:get, link(poll, lars))["candidates"].first.values_at("tally", "who")).to eq(expected), shows
    end
  end

  it "tells whoever asks of each answer, when all have answered, or at the end" do
    each = ask(tells: "each", holdsTimes: false)
    answer(each, wen, "s-c", comment: "After lunch")
    told = mails("marit@skerrybuoy.example").last
    expect(told.subject).to eq "Wen Halloran has answered: Dry-dock talk"
    expect(told.text_part.decoded).to include "14:00 Oslo time: suits", "16:00 Oslo time: cannot", "“After lunch”"
    ids.map! { key }
    all = ask(tells: "all", holdsTimes: false)
    [wen, lars, odd].each { |one| answer(all, one, "ssp") }
    told = mails("marit@skerrybuoy.example").last
    expect(told.subject).to eq "All answers: Dry-dock talk"
    expect(told.text_part.decoded).to include "3 of 3 have answered: Lars Ekeli, Odd Dahl and Wen Halloran.",
      "Nobody is out. Best. As good as another."
    ids.map! { key }
    last = ask(tells: "end", holdsTimes: false)
    answer(last, wen, "s--")
    Records::TimePoll.where(id: last).update_all(closes_at: Clock.now - 1)
    sweep = -> { UseCases::PollTimes.new(clock: clock).put_due }
    expect([sweep.call, sweep.call]).to eq [1, 0]
    expect(mails("marit@skerrybuoy.example").last.subject).to eq "Time is up: Dry-dock talk"
    expect(mails("marit@skerrybuoy.example").last.text_part.decoded).to include "The time to answer is over. 1 of 3 " \
      "have answered: Wen Halloran. Nothing has come from Lars Ekeli and Odd Dahl."
  end

  it "reminds those who are silent, at half-time and by hand" do
    poll = ask
    answer(poll, wen, "sss")
    Records::TimePoll.where(id: poll).update_all(remind_at: Clock.now - 1)
    2.times { UseCases::PollTimes.new(clock: clock).put_due }
    reminded = ->(subject) { mails.select { |mail| mail.subject.start_with?(subject) }.map { |mail| mail.to.first } }
    expect(reminded["Still asked"]).to contain_exactly("lars@skerrybuoy.example", "odd@port.example")
    call(:post, "/time-polls/#{poll}/reminders")
    expect(reminded["Still asked"].size).to eq 4
  end

  it "asks who has answered for an added time alone, and lets a time go with its answers and its hold" do
    poll = ask
    answer(poll, wen, "sss")
    later = {id: key, startsAt: (times[0] + 86_400).iso8601}
    call(:put, "/time-polls/#{poll}/candidates", {candidates: candidates.drop(1) + [later]})
    mail = mails("wen@skerrybuoy.example").last
    expect(mail.subject).to eq "Another time: Dry-dock talk"
    expect(mail.text_part.decoded.scan("Halifax time").size).to eq 2 # the time, and the deadline
    expect(mails("lars@skerrybuoy.example").size).to eq 1
    expect(by_time(poll).map { |one| one["suits"].size }).to eq [1, 1, 0]
    expect(Records::Hold.standing(Clock.now).count).to eq 3
    expect(call(:get, link(poll, wen))["candidates"].last["added"]).to be true
    call(:put, "/time-polls/#{poll}/candidates", {candidates: [{id: key, startsAt: (Clock.now - 60).utc.iso8601}]})
    expect(pointers).to eq ["/candidates/0/startsAt"]
  end

  it "changes its settings and people, with the version seen" do
    poll = ask
    wish = shown(poll).slice("title", "shows", "tells", "byItself", "outcome", "holdsTimes", "closesAt")
      .transform_keys(&:to_sym)
    version = shown(poll)["version"]
    changed = call(:put, "/time-polls/#{poll}", {**wish, title: "Dock", holdsTimes: false}, version: version)
    expect(changed).to include("title" => "Dock", "holdsTimes" => false)
    expect(Records::Hold.standing(Clock.now).count).to eq 0
    call(:put, "/time-polls/#{poll}", {**wish, title: "Else"}, version: version)
    expect(code).to eq "changed-since"
    call(:put, "/time-polls/#{poll}", {**wish, closesAt: (times.last + 1).iso8601}, version: version + 1)
    expect(pointers).to eq ["/closesAt"]
    call(:put, "/time-polls/#{poll}/people", {
      people: [{personId: wen, role: "optional"}], names: [{name: "The harbour master", role: "required"}]
    })
    expect(shown(poll)["people"].map { |one| one.slice("name", "role", "reachable") }).to contain_exactly(
      {"name" => "Wen Halloran", "role" => "optional", "reachable" => true},
      {"name" => "The harbour master", "role" => "required", "reachable" => false}
    )
    call(:get, link(poll, lars))
    expect(status).to eq 404
  end

  it "refuses a place that is taken at one of the times, at that time" do
    room = key
    use(UseCases::Places, marit).add(id: room, name: "Chart room", time_zone: "Europe/Oslo")
    series(marit, {}, start: "#{day}T15:00", rule: nil, place_id: room)
    ask(placeId: room)
    expect([code, pointers]).to eq ["place-taken", ["/candidates/1/startsAt"]]
    expect(Records::TimePoll.count).to eq 0
  end

  it "leaves as a table of people by times" do
    poll = ask
    answer(poll, wen, "s-c", comment: "=1+1")
    call(:get, "/time-polls/#{poll}/answers.csv")
    rows = CSV.parse(last_response.body)
    expect(rows.first).to eq ["Name", "Comes", *[14, 15, 16].map { |hour| "#{day} #{hour}:00" }, "Comment"]
    expect(rows[1]).to eq ["Wen Halloran", "required", "suits", "", "cannot", "'=1+1"]
  end

  it "reads times that were pasted" do
    read = call(:post, "/dates-read", {text: "#{day.strftime("%a %-d %b")} 14:00\nnever", timeZone: "Europe/Oslo"})
    expect(read["times"]).to eq [{"startsAt" => times[0].iso8601, "localStart" => "#{day}T14:00:00",
                                  "lengthMin" => nil}]
    expect(read["unread"]).to eq ["never"]
  end

  it "is nobody else's, and a guessed link is worth nothing" do
    poll = ask
    call(:get, "#{link(poll, wen)[0..-2]}#{(link(poll, wen)[-1] == "a") ? "b" : "a"}")
    expect(status).to eq 404
    sign_in(lars)
    call(:get, "/time-polls/#{poll}")
    expect(status).to eq 404
    expect(call(:get, "/time-polls")["polls"]).to eq []
  end

  # What a crawler, or a mail scanner that follows links, does.
  it "is changed by nobody who only opens what it sends" do
    poll = ask
    before = Records::TimePoll.find(poll).attributes
    mails.each { |mail| call(:get, "/poll-links#{mail.text_part.decoded[%r{/ask(/\S+)}, 1]}") }
    expect(Records::TimePoll.find(poll).attributes).to eq before
    expect(Records::PollPerson.where.not(answered_at: nil).count).to eq 0
  end
end
