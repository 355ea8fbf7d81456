require_relative "../api_helper"
require_relative "../support/poll"

# Every route by a private link, with tokens that are false, somebody else's, of another thing, renewed or ended: each
# answers as if there were nothing (docs/security.md).
RSpec.describe "Private links" do
  include_context "with a poll"

  let(:opened) { {} }
  let(:open_hours) do
    call(:post, "/open-hours", {
      id: key, title: "Clinic", timeZone: "Europe/Oslo", lengths: [30], noticeMin: 0, listed: true,
      hosts: [{personId: marit}]
    })
    Records::OpenHours.last
  end
  let(:booking) do
    link = Loading::OpenHoursLink.path(open_hours).sub("/book/", "/open-hours-links/")
    start = call(:get, "#{link}?month=#{day.strftime("%Y-%m")}&timeZone=Europe/Oslo")["days"].last["times"].last
    call(:post, "#{link}/bookings", {
      id: key, startsAt: start["startsAt"], lengthMin: 30, name: "Odd", email: "odd@port.example", timeZone: "UTC"
    }, token: false)
    Records::Booking.last
  end
  let(:week) { series(marit, {required: wen}, start: "#{day}T09:30", rule: "FREQ=WEEKLY;COUNT=2") }
  let(:meeting) { Records::Meeting.find(meeting_ids(week).first) }
  let(:place) { use(UseCases::Places, marit).add(id: key, name: "Shed", time_zone: "UTC", looked_after_by_id: wen) }
  let(:preparation) do
    place
    Records::Preparation.create!(meeting_id: meeting.id, place_id: Records::Place.last.id, items: ["chairs"])
  end
  let(:action) { raise_action(meeting.id, marit, "Order rope", owners: [wen]) }

  # kind => where its link leads, as it is at that moment
  def paths
    {
      answer: -> { Loading::AnswerLink.path(week, wen) }, action: -> { Loading::ActionLink.path(action, wen) },
      pick: -> do
        Records::RowPicker.create_with(name: "Wen").find_or_create_by!(meeting_id: meeting.id, person_id: wen)
        Loading::PickLink.path(meeting.id, wen)
      end,
      preparation: -> { Loading::Preparation.new(Records::Preparation.find(preparation.id)).path },
      poll: -> { Loading::PollLink.path(@poll_id ||= ask, wen) },
      shared_poll: -> do
        @shared ||= ask.tap { |id| Records::TimePoll.where(id: id).update_all(shared: true) }
        Loading::PollLink.shared_path(Records::TimePoll.find(@shared))
      end,
      open_hours: -> { Loading::OpenHoursLink.path(open_hours.reload) },
      booking: -> { Loading::OpenHoursLink.booking_path(booking.reload) },
      host: -> { open_hours && Loading::OpenHoursLink.host_path(marit) }
    }
  end

  routes = Api::Resource::ROUTES.select { |route| route.right == :link }.group_by(&:kind)

  # The id, the person where there is one, and the token, put into a route.
  def path_of(route, link)
    *ids, token = link.split("/").drop(2)
    route.path.sub(":id", ids[0]).sub(":personId", ids[1] || marit).sub(":token", token)
      .sub(":paperId", key).sub(":meetingId", key).then do |path|
        route.operation.match?(/openOpenHours|openTimes/) ? "#{path}?month=#{day.strftime("%Y-%m")}&timeZone=UTC" : path
      end
  end

  def found?(route, link)
    call(route.method, path_of(route, link), %i[get delete].include?(route.method) ? nil : {}, token: false)
    status != 404
  end

  # The ones that lie below a link, of papers and minutes, need more than a link to be found.
  let(:needs_more) { %w[readPaperByLink readMinutesByLink giveBookingBack] }

  it "are of as many kinds as can be opened" do
    expect(routes.keys).to match_array Loading::PrivateLink::OPENED.keys
    expect(paths.keys).to match_array routes.keys
  end

  routes.each do |kind, all|
    it "to #{kind} let in with their own token and no other", :aggregate_failures do
      link = paths[kind].call
      other = paths[(kind == :answer) ? :action : :answer].call
      others_token = link.sub(/\w+\z/, other[/\w+\z/])
      false_token = link.sub(/\w\z/) { |last| (last == "0") ? "1" : "0" }
      all.each do |route|
        expect(found?(route, link)).to be(true), route.operation unless needs_more.include?(route.operation)
        [others_token, false_token, link.sub(/\w+\z/, "x"), link.sub(/[0-9a-f-]{36}/, key)].each do |wrong|
          expect(found?(route, wrong)).to be(false), "#{route.operation} #{wrong}"
        end
      end
    end
  end

  # What is one person's is another once they have renewed theirs; what is shown to anybody has a serial of its own.
  (routes.keys - %i[open_hours shared_poll]).each do |kind|
    it "to #{kind} are another once the person has renewed theirs" do
      link, route = paths[kind].call, routes[kind].find { |one| one.method == :get }
      whose = {booking: booking.person_id, host: marit}.fetch(kind, wen)
      call(:post, "/people/#{whose}/private-links")
      expect([status, found?(route, link), found?(route, paths[kind].call)]).to eq [204, false, true]
    end
  end

  {action: 31, pick: 8, preparation: 8, booking: 31, poll: 61}.each do |kind, days|
    it "to #{kind} end some days after what they are for" do
      link, route = paths[kind].call, routes[kind].find { |one| one.method == :get }
      Records::ActionItem.update_all(state: "done", closed_at: meeting.ends_at)
      Records::TimePoll.update_all(closes_at: meeting.ends_at)
      over = (kind == :booking) ? booking.time.ends_at : meeting.ends_at
      clock.now = over + (days - 1) * 86_400 - 60
      expect(found?(route, link)).to be true
      clock.now = over + days * 86_400
      expect(found?(route, link)).to be false
    end
  end

  it "are renewed by whoever they belong to and by admins, and the new ones go to their address" do
    invite(week, marit)
    sign_in(wen)
    call(:post, "/people/#{marit}/private-links")
    expect(status).to eq 404
    call(:post, "/people/#{wen}/private-links")
    mail = Mail.new(Records::Mail.order(:created_at).last.source)
    expect([mail.to, mail.subject]).to eq [["wen@skerrybuoy.example"], "Your new links"]
    [mail.text_part, mail.html_part].each do |part|
      expect(part.decoded).to include "Monday mooring round", Loading::AnswerLink.address(week, wen),
        "do not work any more"
    end
  end
end
