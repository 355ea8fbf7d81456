require_relative "../api_helper"
require_relative "../support/poll"

RSpec.describe "A poll that is settled" do
  include_context "with a poll"

  it "becomes a meeting: held times let go, the room given, people told, a yes kept, a word to who is left out" do
    room = key
    use(UseCases::Places, marit).add(id: room, name: "Chart room", time_zone: "Europe/Oslo")
    poll = ask(placeId: room)
    answer(poll, wen, "s--", accepts: true)
    answer(poll, lars, "s--")
    answer(poll, odd, "c--")
    wish = {key: key, candidateId: ids[0], leaveOut: [odd], tell: true}
    settled = call(:put, "/time-polls/#{poll}/settlement", wish)
    2.times { call(:put, "/time-polls/#{poll}/settlement", wish) }
    expect(settled).to include("state" => "settled", "settled" => a_hash_including("told" => true))
    meeting = Records::Meeting.find(settled["settled"]["meetingId"])
    expect([meeting.starts_at, meeting.series.title,
      meeting.location]).to eq [times[0], "Dry-dock talk", "Chart room"]
    expect(Records::PlaceBooking.pluck(:place_id, :starts_at)).to eq [[room, times[0]]]
    expect(Records::Hold.standing(Clock.now).count).to eq 0
    expect(Records::Answer.pluck(:person_id, :answer)).to eq [[wen, "accepted"]]
    told = Records::Mail.where(series_id: meeting.series_id).pluck(:recipient, :kind)
    expect(told).to contain_exactly(["wen@skerrybuoy.example", "invited"], ["lars@skerrybuoy.example", "invited"])
    expect(mails("odd@port.example").last.subject).to eq "Settled: Dry-dock talk"
    expect(call(:get, link(poll, wen))).to include("state" => "settled", "settledAt" => times[0].iso8601)
    call(:delete, "/time-polls/#{poll}/settlement")
    expect(code).to eq "told"
  end

  it "can be opened again while nobody was told" do
    poll = ask
    call(:put, "/time-polls/#{poll}/settlement", {key: key, candidateId: ids[1], tell: false})
    expect(Records::Meeting.pluck(:starts_at)).to eq [times[1]]
    expect(call(:delete, "/time-polls/#{poll}/settlement")["state"]).to eq "open"
    expect(Records::Meeting.count).to eq 0
    expect(Records::Hold.standing(Clock.now).pluck(:starts_at)).to match_array times
    expect(Records::Mail.where(kind: "invited").count).to eq 0
  end

  # Who asked for times may have lost what they were asked for, before it is settled.
  {
    "moves a meeting" => ->(_) { {outcome: "move"} }, "adds a date" => ->(_) { {outcome: "within"} }
  }.each do |what, wish|
    it "#{what} only as long as whoever asked may" do
      boats = series(marit, {required: wen}, title: "Boats", start: "#{day}T09:30", rule: "FREQ=WEEKLY;COUNT=3")
      aim = (wish[nil][:outcome] == "move") ? {meetingId: meeting_ids(boats)[1]} : {seriesId: boats}
      poll = ask(**wish[nil], **aim)
      Records::Series.where(id: boats).update_all(keeper_id: lars, chair_id: lars)
      before = Records::Meeting.where(series_id: boats).order(:id).pluck(:id, :starts_at)
      settlement = {key: key, candidateId: ids[0], tell: false}
      refused = call(:put, "/time-polls/#{poll}/settlement", settlement)
      expect([status, code]).to eq [409, "not-yours"]
      expect(refused["title"]).to include "is not for Marit Hauge to change any more"
      expect(Records::Meeting.where(series_id: boats).order(:id).pluck(:id, :starts_at)).to eq before
      Records::Series.where(id: boats).update_all(keeper_id: marit, chair_id: marit)
      call(:put, "/time-polls/#{poll}/settlement", settlement)
      Records::Series.where(id: boats).update_all(keeper_id: lars, chair_id: lars)
      call(:delete, "/time-polls/#{poll}/settlement")
      expect([status, code]).to eq [409, "not-yours"]
    end
  end

  it "becomes a series by a rule" do
    poll = ask(outcome: "series", rule: "FREQ=WEEKLY;COUNT=4")
    call(:put, "/time-polls/#{poll}/settlement", {key: (made = key), candidateId: ids[2]})
    expect(Records::Meeting.where(series_id: made).in_order.pluck(:starts_at).first(2)).to eq [
      times[2], Core::Zone["Europe/Oslo"].instant(Core::WallTime.at(day + 7, 16 * 3_600))
    ]
    call(:post, "/time-polls", {
      id: key, title: "X", lengthMin: 30, timeZone: "UTC", candidates: [{id: key, startsAt: times[0].iso8601}],
      outcome: "series"
    })
    expect(pointers).to eq ["/rule"]
  end

  it "becomes the new time of a meeting, and who was asked besides comes to it" do
    round = series(marit, {required: lars}, start: "#{day}T09:30", rule: "FREQ=WEEKLY;COUNT=3")
    meeting = meeting_ids(round).first
    invite(round, marit)
    poll = ask(outcome: "move", meetingId: meeting)
    expect(shown(poll)["aim"]).to start_with "Monday mooring round, "
    answer(poll, lars, "-s-", accepts: true)
    call(:put, "/time-polls/#{poll}/settlement", {key: key, candidateId: ids[1]})
    expect(Records::Meeting.find(meeting)).to have_attributes(starts_at: times[1], ends_at: times[1] + 3_600)
    expect(Records::Substitute.where(meeting_id: meeting).pluck(:person_id)).to contain_exactly(wen, odd)
    expect(Records::Answer.where(meeting_id: meeting).pluck(:person_id, :answer)).to eq [[lars, "accepted"]]
    expect(mails("odd@port.example").last.subject).to start_with "Invitation"
  end

  it "becomes another date of a series, which its calendar entry has as RDATE, and can be taken back" do
    round = series(marit, {required: lars}, start: "#{day - 6}T09:30", rule: "FREQ=WEEKLY;COUNT=3")
    poll = ask(outcome: "within", seriesId: round)
    call(:put, "/time-polls/#{poll}/settlement", {key: key, candidateId: ids[0], tell: false})
    expect(meeting_ids(round).size).to eq 4
    sentence = call(:get, "/series/#{round}")["sentence"]
    expect(sentence).to end_with "and on #{Core::Words.day(day)} at 14:00"
    call(:delete, "/time-polls/#{poll}/settlement")
    expect(meeting_ids(round).size).to eq 3
    later = [{id: (other = key), startsAt: (times[0] + 10 * 86_400).iso8601}]
    call(:put, "/time-polls/#{poll}/candidates", {candidates: later})
    call(:put, "/time-polls/#{poll}/settlement", {key: key, candidateId: other})
    invited = Records::Mail.find_by!(recipient: "lars@skerrybuoy.example", kind: "invited")
    calendar = UseCases::Invitations.new(clock: clock).compose(invited)[:calendar]
    expect(calendar).to include "RRULE:FREQ=WEEKLY;COUNT=3", "RDATE"
  end

  it "settles by itself on the first time that suits the one who is asked" do
    call(:post, "/time-polls", {
      id: (poll = key), title: "Pilot", lengthMin: 30, timeZone: "Europe/Oslo", candidates: candidates,
      guests: [{id: key, name: "Odd Dahl", email: "odd@port.example", role: "required"}]
    })
    expect(shown(poll)["byItself"]).to be true
    answer(poll, odd, "c--")
    expect(shown(poll)["state"]).to eq "open"
    answer(poll, odd, "-ss", accepts: true)
    expect(shown(poll)["state"]).to eq "settled"
    expect(Records::Meeting.pluck(:starts_at)).to eq [times[1]]
    expect(mails("marit@skerrybuoy.example").last.text_part.decoded).to include "15:00 Oslo time suits Odd Dahl"
  end

  it "says why it could not settle by itself, and loses no answer over it" do
    room = key
    use(UseCases::Places, marit).add(id: room, name: "Chart room", time_zone: "Europe/Oslo")
    call(:post, "/time-polls", {
      id: (poll = key), title: "Pilot", lengthMin: 30, timeZone: "Europe/Oslo", candidates: candidates,
      placeId: room, holdsTimes: false,
      guests: [{id: key, name: "Odd Dahl", email: "odd@port.example", role: "required"}]
    })
    series(marit, {}, start: "#{day}T14:00", rule: nil, place_id: room)
    answer(poll, odd, "s--")
    expect(shown(poll)["state"]).to eq "open"
    expect(by_time(poll).first["suits"]).to eq [odd]
    expect(mails("marit@skerrybuoy.example").last.text_part.decoded).to include "could not be made: Chart room"
  end

  it "comes to the admins when nobody has settled it for three days, and they can" do
    sign_in(wen)
    poll = key
    guest = {id: key, name: "Odd Dahl", email: "odd@port.example", role: "required"}
    call(:post, "/time-polls", {
      id: poll, title: "Boom and chain", lengthMin: 60, timeZone: "Europe/Oslo", candidates: candidates, guests: [guest]
    })
    sign_in(marit)
    seen = [60, 4 * 86_400].map do |ago|
      Records::TimePoll.update_all(closes_at: Clock.now - ago)
      [call(:get, "/time-polls")["polls"], call(:get, "/desk")["polls"]].map { |rows| rows.map { |row| row["keeper"] } }
    end
    expect(seen).to eq [[[], []], [["Wen Halloran"], ["Wen Halloran"]]]
    call(:post, "/time-polls/#{poll}/closing", {word: "Wen has left the Trust."})
    expect(status).to be < 300
    expect(mails("odd@port.example").last.text_part.decoded).to include "Wen has left"
    sign_in(lars)
    expect(call(:get, "/time-polls")["polls"]).to be_empty
  end

  it "is closed without a time, with a word" do
    poll = ask
    2.times { call(:post, "/time-polls/#{poll}/closing", {word: "We write instead"}) }
    expect(shown(poll)["state"]).to eq "closed"
    expect(mails("wen@skerrybuoy.example").last.text_part.decoded).to include "without choosing one",
      "“We write instead”"
    expect(Records::Hold.standing(Clock.now).count).to eq 0
    answer(poll, wen, "sss")
    expect(code).to eq "over"
  end
end
