require_relative "../api_helper"

# Walks every route as every role: what Core::Rights does not allow answers 404 (401 without a sign-in), and
# what it allows does not. A route without a rule, or with one unknown to the table, fails.
RSpec.describe "Rights", :timeless do
  people = %i[keeper chair member informed stranger admin].to_h { |role| [role, "#{role.to_s.capitalize} Person"] }
  held = {
    keeper: %i[keeper self], chair: %i[chair], member: %i[member], informed: %i[informed], stranger: [],
    admin: %i[admin]
  }

  before do
    @people = people.to_h { |role, name| [role, person(name, admin: role == :admin)] }
    @series = series(
      @people[:keeper], {required: @people[:member], informed: @people[:informed]}, chair_id: @people[:chair],
      start: "#{today + 7}T09:30", rule: "FREQ=WEEKLY;COUNT=3"
    )
    @meeting = meeting_ids(@series).first
    @topic = topic(@meeting, @people[:keeper], "Safety")
    state(@meeting, @people[:keeper], "in_session")
    @action = raise_action(@meeting, @people[:keeper], "Order rope")
    @line = Records::Line.first.id
    @place = key
    use(UseCases::Places, @people[:admin]).add(
      id: @place, name: "Chart room", time_zone: "Europe/Oslo", looked_after_by_id: @people[:keeper]
    )
    @calendar = key
    use(UseCases::Calendars, @people[:keeper]).add(
      id: @calendar, name: "Mine", kind: "by_hand", person_id: @people[:keeper]
    )
    @hold = key
    use(UseCases::Holds, @people[:keeper]).keep(
      id: @hold, title: "Later", starts_at: clock.now + 86_400, length_min: 30, time_zone: "Europe/Oslo"
    )
    @offered_time = use(UseCases::OfferedTimes, @people[:member]).offer(
      id: key, meeting_id: meeting_ids(@series).last, person_id: @people[:member], starts_at: clock.now + 86_400,
      ends_at: clock.now + 90_000
    )
    @incoming_mail = Records::IncomingMail.create!(
      digest: "x", sender: "x@x.example", source: "x", state: "aside", series_id: @series, received_at: clock.now
    ).id
    @outside = Records::OutsideMeeting.create!(
      id: key,
      person_id: @people[:keeper],
      uid: "x",
      uid_digest: "x",
      title: "Port council",
      organizer_email: "port@port.example",
      messages: [
        {
          "from" => "port@port.example",
          "ical" =>
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nMETHOD:REQUEST\r\nBEGIN:VEVENT\r\nUID:x\r\n" \
              "DTSTART:#{(clock.now + 86_400).strftime("%Y%m%dT%H%M%SZ")}\r\nDURATION:PT1H\r\n" \
              "ORGANIZER:mailto:port@port.example\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
        }
      ],
      changed_at: clock.now
    ).id
    @paper = key
    use(UseCases::Papers, @people[:keeper]).begin_paper(
      id: @paper, meeting_id: @meeting, name: "chart.txt", size_bytes: 5
    )
    use(UseCases::Papers, @people[:keeper]).put_piece(id: @paper, number: 0, bytes: "depth")
    use(UseCases::SignIns, @people[:admin]).invite(@people[:keeper])
    @token =
      Records::Mail
        .where("reason like 'sign-in:%'")
        .last
        .source
        .then { |source| ::Mail.new(source).text_part.decoded[%r{/sign-in/(\S+)}, 1] }
    @file_reading = use(UseCases::FileReadings, @people[:keeper]).hand_in("invitation", content: "x", most: 10)
    @poll = key
    use(UseCases::TimePolls, @people[:keeper]).create(
      id: @poll, title: "When?", length_min: 30, time_zone: "UTC",
      candidates: [{id: key, starts_at: clock.now.floor + 9 * 86_400}],
      people: [{person_id: @people[:keeper], role: "required"}]
    )
    @sending = key
    use(UseCases::Invitations, @people[:keeper]).send_all(id: @sending, series_id: @series)
  end

  # A sign-in that stands, since others of the walk end all of them.
  def a_session
    UseCases::SignIns.new(clock: clock).begin_for(@people[:keeper], "Some browser")
    Records::Session.where(person_id: @people[:keeper], program: "Some browser").order(:created_at).last.id
  end

  # A group that stands, since others of the walk remove it.
  def a_group
    Records::Group.create!(id: key, name: "Group #{key}").id
  end

  # Some that stand, since others of the walk remove them.
  def an_open_hours
    Records::OpenHours.create!(
      id: key, title: "Clinic", kept_by_id: @people[:keeper], time_zone: "UTC", lengths: [30], questions: [],
      only_from: [], never_from: [], always_ids: [], frames: []
    ).id
  end

  def a_hosting
    Records::OpenHoursHost.create!(id: key, open_hours_id: an_open_hours, person_id: @people[:keeper], position: 0).id
  end

  def ids(kind) =
    if kind == :session
      a_session
    elsif kind == :hosting
      a_hosting
    else
      {
        series: @series, meeting: @meeting, topic: @topic, line: @line, action: @action, person: @people[:keeper],
        file_reading: @file_reading, place: @place, calendar: @calendar, hold: @hold, paper: @paper,
        offered_time: @offered_time, incoming_mail: @incoming_mail, outside_meeting: @outside, group: a_group,
        time_poll: @poll, open_hours: an_open_hours
      }.fetch(kind, key)
    end

  def path_of(route)
    route
      .path
      .sub(":id", ids(route.kind))
      .sub(":personId", @people[:keeper])
      .sub(":topicId", @topic)
      .sub(":actionId", @action)
      .sub(":sendingId", @sending)
      .sub(":entryId", key)
      .sub(":placeId", @place)
      .sub(":paperId", @paper)
      .sub(":number", "0")
      .sub(":token", @token)
  end

  it "takes no route to something that does not say what it is" do
    expect { Api::Resource.on(:get, "/things/:id", "showThing", may: :see_own) { json({}) } }
      .to raise_error(ArgumentError, "Say what :id is in /things/:id.")
  end

  it "knows a right for every route, and a route for every operation" do
    routes = Api::Resource::ROUTES
    expect(routes.map(&:right) - Core::Rights::TABLE.keys).to be_empty
    expect(routes.map(&:operation)).to match_array Api::Contract::OPERATIONS.keys
    defined = Api::App::RESOURCES.sum { |resource| resource.routes.except("HEAD").values.sum(&:size) }
    expect(defined).to eq routes.size
  end

  # What the words of the job say, written by hand and without a look at the table of rights: a deputy of the series
  # writes the minutes and does not run it, an admin looks after people and places and reads nobody's minutes.
  by_hand = {
    [:keeper, :chair, :deputy, :member, :informed] => %w[showSeries listMeetings listPapers],
    [:keeper, :chair, :deputy, :member] => %w[showSheet listDecisions showStrands addTopic beginPaper],
    [:keeper, :chair, :deputy] => %w[changeMeetingState addLine changeLine takeAttendance changeTopic changeAction],
    [:keeper, :chair] => %w[
      changeSeries showAnswers listMails previewInvitation sendInvitation setDeputy answerMeeting moveMeeting
      changeRun showHistory endSeries deleteSeries
    ],
    [:keeper, :chair, :admin] => %w[dismissIncomingMail],
    [:keeper, :admin] => %w[
      keepHours listCalendars showCalendar listPlaceCalendars renewPrivateLinks showTimePoll showOpenHours
      removeOpenHours
    ],
    [:keeper] => %w[showFeeds releaseHold dismissOutsideMeeting endSignIn showFileReading leaveHosting],
    [:admin] => %w[addPerson changePerson keepPeopleImport addPlace addGroup listSetAside inviteToSignIn],
    [:keeper, :chair, :deputy, :member, :informed, :stranger, :admin] => %w[showPerson createSeries search showDesk]
  }

  # Removing comes last, or there would be nothing left to be refused.
  routes = Api::Resource::ROUTES.sort_by { |route|
    if [:get, :post, :put].include?(route.method)
      0
    elsif route.operation.start_with?("remove")
      2 + ((route.path.count(":") == 1) ? 1 : 0)
    else
      1
    end
  }

  def try(route) = call(route.method, path_of(route), %i[get delete].include?(route.method) ? nil : {}, version: 0)

  people.each_key do |role|
    it "let #{role} do what the table says, and show nothing of the rest", :aggregate_failures do
      routes.each do |route|
        sign_in(@people[role]) unless @signed_in == role
        @signed_in = role
        allowed =
          Core::Rights.allow?(route.right, held[role] + %i[person anyone]) &&
          !(Core::Rights::OWN_ONLY.include?(route.right) && (Core::Rights::RUN & held[role]).empty?)
        try(route)
        @signed_in = nil if route.operation.start_with?("sign")
        # There the link decides (spec/api/links_spec.rb).
        next if route.right == :link

        # An empty body is refused only after the right was found.
        expect(status == 404).to be(!allowed), "#{role} #{route.operation}: #{status}"
      end
    end
  end

  it "let each do what the words of the job say", :aggregate_failures do
    @people[:deputy] = person("Deputy Person")
    Records::SeriesMember.create!(series_id: @series, person_id: @people[:deputy], role: "required")
    sign_in(@people[:keeper])
    call(:put, "/series/#{@series}/deputies/#{@people[:deputy]}", {deputy: true})
    removing = %w[deleteSeries removeOpenHours]
    # Who may comes last, so that those who may not find the thing there.
    (held.keys + [:deputy]).each do |role|
      sign_in(@people[role])
      by_hand.each do |may, operations|
        (operations - (may.include?(role) ? removing : [])).each do |operation|
          try(routes.find { |route| route.operation == operation })
          expect(status == 404).to be(!may.include?(role)), "#{role} #{operation}: #{status}"
        end
      end
    end
  end

  it "let somebody not signed in do nothing but sign in", :aggregate_failures do
    routes.each do |route|
      try(route)
      expect(status == 401).to be(!Core::Rights::TABLE[route.right].include?(:anyone)), "#{route.operation}: #{status}"
    end
  end

  it "let a member answer for themselves, tick off their own action and change their own topic" do
    own = raise_action(@meeting, @people[:keeper], "Grease the winch", owners: [@people[:member]])
    brought = topic(@meeting, @people[:member], "Winch")
    sign_in(@people[:member])
    call(:put, "/meetings/#{meeting_ids(@series)[1]}/answers/#{@people[:member]}", {answer: "accepted"})
    expect(status).to eq 200
    call(:put, "/actions/#{own}/state", {state: "done"})
    expect(status).to eq 200
    call(:put, "/topics/#{brought}", {title: "The winch", purpose: "discussion", lengthMin: 5}, version: 0)
    expect(status).to eq 200
  end

  it "let the informed read minutes once they are issued, and not before" do
    sign_in(@people[:informed])
    call(:get, "/meetings/#{@meeting}")
    expect(status).to eq 404
    %w[closed issued].each { |to| state(@meeting, @people[:keeper], to) }
    call(:get, "/meetings/#{@meeting}")
    expect(status).to eq 200
  end
end
